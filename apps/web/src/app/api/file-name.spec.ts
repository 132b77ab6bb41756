import { fileNameIn } from './file-name';

/** The header of RFC 6266, section 5, and others as its grammar allows them. */
describe('the name of a file that is answered', () => {
  it('is read in any script', () => {
    expect(
      fileNameIn(`attachment; filename="EURO rates"; filename*=utf-8''%e2%82%ac%20rates`),
    ).toBe('€ rates');
    expect(fileNameIn(`attachment; filename="?.pdf"; filename*=UTF-8''%E6%BD%AE.pdf`)).toBe(
      '潮.pdf',
    );
  });

  it('is read where it is plain', () => {
    expect(fileNameIn('attachment; filename="Tide table.pdf"')).toBe('Tide table.pdf');
    expect(fileNameIn('attachment; filename=Hours.csv')).toBe('Hours.csv');
  });

  it('is one of ours where nobody says it', () => {
    expect(fileNameIn('')).toBe('record.pdf');
  });
});
