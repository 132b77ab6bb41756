import { spansOf } from './direction.js';

const seen = (text: string, rtl: boolean): string =>
  spansOf(text, rtl, () => null)
    .map(({ words, rtl: back }) => (back ? [...words].reverse().join('') : words))
    .join('');

/*
 * Unicode Standard Annex 9 writes its examples with capitals for letters that run from right to
 * left; here they are Hebrew letters, alef for A, bet for B and so on.
 */
const hebrew = (text: string): string =>
  text.replace(/[A-V]/g, (letter) => String.fromCodePoint(0x5d0 + letter.charCodeAt(0) - 65));

describe('words that run both ways', () => {
  it('stand as Unicode Standard Annex 9 shows them', () => {
    for (const [stored, rtl, shown] of [
      // UAX 9, 3.4 (cited from memory).
      ['car is THE CAR in arabic', false, 'car is RAC EHT in arabic'],
      ['CAR IS the car IN ENGLISH', true, 'HSILGNE NI the car SI RAC'],
      [
        'he said "THE VALUES ARE 123, 456, 789, OK"',
        false,
        'he said "KO ,789 ,456 ,123 ERA SEULAV EHT"',
      ],
      // A number among letters that run back keeps its own way: 3.3.4, W2 and N1.
      ['12 AB 34', true, '34 BA 12'],
    ] as const)
      expect(seen(hebrew(stored), rtl))
        .withContext(stored)
        .toBe(hebrew(shown));
  });

  it('have their brackets turned as they are seen', () => {
    expect(seen(hebrew('AB (C)'), true)).toBe(hebrew('(C) BA'));
    expect(seen('a (b)', false)).toBe('a (b)');
  });

  it('are divided where another font begins, and stay in order', () => {
    const spans = spansOf('ab12cd', false, (letter) => /\d/.test(letter));
    expect(spans.map(({ words }) => words)).toEqual(['ab', '12', 'cd']);
    const back = spansOf(hebrew('AB') + '!' + hebrew('CD'), true, (letter) => letter === '!');
    expect(back.map(({ words }) => words)).toEqual([hebrew('CD'), '!', hebrew('AB')]);
  });
});
