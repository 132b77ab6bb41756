import { formatBytes, formatPages, formatNames } from './format-material';

describe('words for materials', () => {
  it('say sizes in thousands', () => {
    expect(
      [9, 999, 1000, 340_499, 999_499, 1_000_000, 2_449_000, 23_400_000].map(formatBytes),
    ).toEqual(['9 bytes', '999 bytes', '1 kB', '340 kB', '999 kB', '1.0 MB', '2.4 MB', '23 MB']);
  });

  it('say pages in runs', () => {
    expect(formatPages([4])).toBe('page 4');
    expect(formatPages([1, 2, 3])).toBe('pages 1–3');
    expect(formatPages([1, 2, 5, 7, 8])).toBe('pages 1–2, 5 and 7–8');
  });

  it('name one thing and count several', () => {
    expect(formatNames(['Ebb.pdf'])).toBe('“Ebb.pdf”');
    expect(formatNames(['a', 'b'])).toBe('2 things');
  });
});
