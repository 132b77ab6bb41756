import { eastAsianIn, eastAsianWidth } from './east-asian.js';
import { numberedFiles, readUnicodeRange } from './unicode-range.js';

describe('fonts for East Asia', () => {
  it('are asked for by the language of a text', () => {
    expect(eastAsianIn('low water at 14:20, fjære')).toEqual([]);
    expect(eastAsianIn('潮汐')).toEqual(['chinese']);
    expect(eastAsianIn('ㄔㄠˊ')).toEqual(['chinese']);
    expect(eastAsianIn('しおのみちひ')).toEqual(['japanese']);
    expect(eastAsianIn('潮の満ち引き')).toEqual(['japanese', 'chinese']);
    expect(eastAsianIn('밀물')).toEqual(['korean']);
    expect(eastAsianIn('밀물 潮')).toEqual(['korean', 'chinese']);
  });

  it('have letters of one width each', () => {
    expect(eastAsianWidth('潮')).toBe(1);
    expect(eastAsianWidth('。')).toBe(1);
    expect(eastAsianWidth('밀')).toBe(0.92);
    expect(eastAsianWidth('ｱ')).toBe(0.5);
    expect(eastAsianWidth('a')).toBeNull();
  });
});

describe('a range of letters as CSS writes it', () => {
  it('has what it says, single ones and stretches', () => {
    const has = readUnicodeRange('U+41-43, u+6F6E,U+1F1E9-1F1F5');
    expect([0x40, 0x41, 0x43, 0x44].map(has)).toEqual([false, true, true, false]);
    expect(has(0x6f6e)).toBe(true);
    expect(has(0x1f1f0)).toBe(true);
    expect(readUnicodeRange('')(0x41)).toBe(false);
  });

  it('lie in numbered files, beside those of alphabets', () => {
    expect(numberedFiles({ '[4]': 'U+6F6E', latin: 'U+41-5A', '[119]': 'U+4E00-4E01' })).toEqual([
      { number: '4', range: 'U+6F6E' },
      { number: '119', range: 'U+4E00-4E01' },
    ]);
  });
});
