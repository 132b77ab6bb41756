import type { Matrix } from './matrix.js';

export type Rotation = 0 | 90 | 180 | 270;

/** A PDF rectangle in user space: lower left and upper right corner. */
export type PdfRect = readonly [x0: number, y0: number, x1: number, y1: number];

/** What a PDF says of a page's place in user space (ISO 32000-1, 7.7.3.3, table 30). */
export interface PdfPlacement {
  /** The visible part, in user space units: CropBox cut to MediaBox. */
  readonly box: PdfRect;
  /** Degrees clockwise by which the page is shown turned. */
  readonly rotate: Rotation;
  /** Points in one unit of user space (UserUnit, PDF 1.6); 1 if the file is silent. */
  readonly unit: number;
}

/** US Letter: what readers fall back on where a page has no usable MediaBox. */
const FALLBACK: PdfRect = [0, 0, 612, 792];

function ordered([x0, y0, x1, y1]: PdfRect): PdfRect {
  return [Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1)];
}

function isArea([x0, y0, x1, y1]: PdfRect): boolean {
  return x1 > x0 && y1 > y0;
}

/** CropBox cut to MediaBox; a crop that lies outside counts as none (ISO 32000-1, 14.11.2). */
export function visibleBox(media: PdfRect | null, crop: PdfRect | null): PdfRect {
  const m = media && isArea(ordered(media)) ? ordered(media) : FALLBACK;
  if (!crop) return m;
  const c = ordered(crop);
  const cut: PdfRect = [
    Math.max(m[0], c[0]),
    Math.max(m[1], c[1]),
    Math.min(m[2], c[2]),
    Math.min(m[3], c[3]),
  ];
  return isArea(cut) ? cut : m;
}

/** Rotate as a whole number of quarter turns clockwise; anything else counts as 0. */
export function rotation(degrees: number): Rotation {
  return (degrees % 90 === 0 ? ((degrees % 360) + 360) % 360 : 0) as Rotation;
}

/** Width and height of the page as shown, in points. */
export function shownSize({ box, rotate, unit }: PdfPlacement): { width: number; height: number } {
  const w = (box[2] - box[0]) * unit;
  const h = (box[3] - box[1]) * unit;
  return rotate % 180 === 0 ? { width: w, height: h } : { width: h, height: w };
}

/**
 * The map from our page (points, origin at the top left of what is shown, y down) to the PDF's
 * user space (its own units, y up), so that what is drawn with it lands where it was written.
 */
export function pageToUserSpace({ box, rotate, unit }: PdfPlacement): Matrix {
  const [x0, y0, x1, y1] = box;
  const s = 1 / unit;
  switch (rotate) {
    case 0:
      return [s, 0, 0, -s, x0, y1];
    case 90:
      return [0, s, s, 0, x0, y0];
    case 180:
      return [-s, 0, 0, s, x1, y0];
    case 270:
      return [0, -s, -s, 0, x1, y1];
  }
}
