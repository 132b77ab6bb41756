import type { GlyphRun } from 'fontkit';
import { decimal } from './decimal.js';

/**
 * Operators that set glyphs as far from each other as their font says (ISO 32000-1, 9.4.3): plain widths, which
 * is all that a PDF knows of it by itself, leave out kerning and put marks beside their letters.
 * @param codes of the glyphs in the PDF's font, in hexadecimal digits
 * @param size of the letters, in points
 * @returns them, and the width of all in units of the size
 */
export function showGlyphs(
  { glyphs, positions }: Pick<GlyphRun, 'glyphs' | 'positions'>,
  codes: readonly string[],
  unitsPerEm: number,
  size: number,
): { code: string; width: number } {
  let code = '[';
  let width = 0;
  let rise = 0;
  /** By how much the next glyph stands before where the last one ended, in thousandths. */
  let back = 0;
  glyphs.forEach((glyph, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    if (yOffset !== rise) {
      rise = yOffset;
      code += `] TJ ${decimal((rise / unitsPerEm) * size)} Ts [`;
    }
    const thousandths = (units: number): number => (units * 1000) / unitsPerEm;
    back -= thousandths(xOffset);
    if (Math.abs(back) > 0.01) code += decimal(back);
    code += `<${codes[i]!}>`;
    back = thousandths(glyph.advanceWidth + xOffset - xAdvance);
    width += xAdvance / unitsPerEm;
  });
  return { code: `${code}] TJ${rise === 0 ? '' : ' 0 Ts'}`, width };
}
