/**
 * How wide digits and signs are in our plain font, in parts of its size: the advance widths of Atkinson Hyperlegible Next,
 * regular, as its file has them (`number-line-font.spec` in `formats` holds them against it). With them a label lies in the
 * middle of its tick without a font being there.
 */
export const DIGIT_WIDTHS: Readonly<Record<string, number>> = {
  '0': 0.648,
  '1': 0.407,
  '2': 0.548,
  '3': 0.576,
  '4': 0.614,
  '5': 0.588,
  '6': 0.598,
  '7': 0.51,
  '8': 0.615,
  '9': 0.595,
  '−': 0.606,
  '.': 0.21,
};

/** In points. */
export function labelWidth(text: string, size: number): number {
  let width = 0;
  for (const sign of text) width += (DIGIT_WIDTHS[sign] ?? 0.65) * size;
  return width;
}
