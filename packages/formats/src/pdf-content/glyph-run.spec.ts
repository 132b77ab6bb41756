import { create } from 'fontkit';
import type { Font } from 'fontkit';
import { testFonts } from '../testing/fonts.js';
import { showGlyphs } from './glyph-run.js';

/** Where each glyph is drawn and where the run ends, as ISO 32000-1, 9.4.3 and 9.4.4, has it. */
function drawn(code: string, widths: readonly number[]): { at: number[]; rises: number[] } {
  const at: number[] = [];
  const rises: number[] = [];
  let x = 0;
  let rise = 0;
  let n = 0;
  for (const [token, glyph] of code.matchAll(/<([0-9a-f]{4})>|-?[\d.]+(?: Ts)?/g)) {
    if (glyph) {
      at.push(x);
      rises.push(rise);
      x += widths[n++]!;
    } else if (token.endsWith('Ts')) rise = parseFloat(token);
    else x -= Number(token) / 1000;
  }
  return { at: [...at, x], rises };
}

describe('glyphs in a PDF', () => {
  const SIZE = 20;
  let font: Font;

  beforeAll(async () => {
    const [bytes] = await testFonts({ font: 'plain', bold: false, slant: false }, new Set());
    font = create(bytes as never) as Font;
  });

  it('stand where the font’s kerning has them, and end where a browser’s measure ends', () => {
    const run = font.layout('AVATAR, Bring Ty');
    const kerned = run.positions.some(
      ({ xAdvance }, i) => xAdvance !== run.glyphs[i]!.advanceWidth,
    );
    expect(kerned).toBeTrue();
    const codes = run.glyphs.map((_, i) => i.toString(16).padStart(4, '0'));
    const { code, width } = showGlyphs(run, codes, font.unitsPerEm, SIZE);
    const { at } = drawn(
      code,
      run.glyphs.map((glyph) => glyph.advanceWidth / font.unitsPerEm),
    );
    let x = 0;
    for (const [i, { xAdvance }] of run.positions.entries()) {
      expect(at[i]).toBeCloseTo(x, 4);
      x += xAdvance / font.unitsPerEm;
    }
    expect(width).toBeCloseTo(run.advanceWidth / font.unitsPerEm, 6);
  });

  it('have marks above their letters, and those after them where they belong', () => {
    const glyph = (advanceWidth: number) => ({ advanceWidth });
    const run = {
      glyphs: [glyph(600), glyph(0), glyph(500)],
      positions: [
        { xAdvance: 600, yAdvance: 0, xOffset: 0, yOffset: 0 },
        { xAdvance: 0, yAdvance: 0, xOffset: -250, yOffset: 120 },
        { xAdvance: 500, yAdvance: 0, xOffset: 0, yOffset: 0 },
      ],
    };
    const { code, width } = showGlyphs(run as never, ['0001', '0002', '0003'], 1000, SIZE);
    const { at, rises } = drawn(code, [0.6, 0, 0.5]);
    for (const [i, x] of [0, 0.35, 0.6, 1.1].entries()) expect(at[i]).toBeCloseTo(x, 9);
    expect(rises).toEqual([0, 2.4, 0]);
    expect(width).toBeCloseTo(1.1, 9);
    expect(code.endsWith(' Ts')).toBeFalse();
  });
});
