import type { CoverSpec, PdfRect } from '@cuaderno/core';
import { rgbOf } from '../annotation.js';
import type { Annotation } from '../annotation.js';
import { PLAIN } from '../plain.js';

/** A sheet is a square without an edge. */
export function cover(item: CoverSpec, rect: PdfRect): Annotation {
  return { ...PLAIN, kind: 'Square', rect, interior: rgbOf(item.tint) };
}
