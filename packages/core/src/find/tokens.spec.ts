import { around, hasAll, tokensOf, wantedOf } from './index.js';

const finds = (text: string, query: string): boolean => hasAll(tokensOf(text), wantedOf(query));

describe('looking words up', () => {
  it('minds neither case nor accents, and takes words that go on', () => {
    expect(finds('Springflod i Solvík', 'solvik')).toBeTrue();
    expect(finds('Springflod i Solvík', 'spring')).toBeTrue();
    expect(finds('Springflod i Solvík', 'flod')).toBeFalse();
    expect(finds('low, then HIGH water', 'high low')).toBeTrue();
    expect(finds('low water', 'high low')).toBeFalse();
  });

  it('takes what is written with signs as words that follow each other', () => {
    expect(finds('Read pages 12-14.', '12-14')).toBeTrue();
    expect(finds('Read pages 14 and 12.', '12-14')).toBeFalse();
    expect(tokensOf('“Ebb” & flood…')).toEqual(['ebb', 'flood']);
  });

  it('finds within what is written without spaces', () => {
    expect(finds('潮汐表', '汐')).toBeTrue();
    expect(finds('潮汐表', '潮表')).toBeFalse();
    expect(finds('ตารางน้ำ', 'น้ำ')).toBeTrue();
  });

  it('asks for nothing where nothing is said', () => {
    expect(wantedOf(' “ ” ')).toEqual([]);
  });

  it('shows what was found as it was written, with some words around', () => {
    expect(around('At Solvík  the ebb is late', wantedOf('solvik'))).toEqual({
      before: 'At ',
      found: 'Solvík',
      after: ' the ebb is late',
    });
    expect(around('rebel ebb', wantedOf('eb')).before).toBe('rebel ');
    expect(around('nothing of it', wantedOf('moon')).found).toBe('');
  });
});
