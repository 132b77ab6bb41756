import { distanceToSegment, thin } from '../geometry/index.js';
import type { HighlightName, InkName } from './palette.js';

/** One sample of a pen: place in points, pressure 0 to 1, milliseconds since the stroke began. */
export interface InkPoint {
  readonly x: number;
  readonly y: number;
  readonly pressure: number;
  readonly time: number;
}

/** What a stroke is drawn with. Width in points. */
export type InkStyle =
  | { readonly tool: 'pen'; readonly ink: InkName; readonly width: number }
  | { readonly tool: 'highlighter'; readonly ink: HighlightName; readonly width: number };

/** One line of ink, from pen down to pen up. */
export interface Stroke {
  readonly style: InkStyle;
  readonly points: readonly InkPoint[];
}

/** Pressure reported by devices that have none (Pointer Events, level 3, 5.1). */
export const NO_PRESSURE = 0.5;

/** How far, in points, a thinned line may lie from the line that was drawn: a third of a hair. */
export const THIN_TOLERANCE = 0.12;

/**
 * Drops samples that carry nothing to see. Pressure counts as a third dimension, scaled by the
 * width so that a swelling of the line is kept just as a bend is.
 */
export function thinPoints(
  points: readonly InkPoint[],
  width: number,
  tolerance = THIN_TOLERANCE,
): InkPoint[] {
  const offset = (i: number, a: number, b: number): number => {
    const p = points[i]!;
    const from = points[a]!;
    const to = points[b]!;
    const along = to.time === from.time ? 0 : (p.time - from.time) / (to.time - from.time);
    const expected = from.pressure + (to.pressure - from.pressure) * along;
    return Math.max(distanceToSegment(p, from, to), Math.abs(p.pressure - expected) * width);
  };
  return thin(points.length, offset, tolerance).map((i) => points[i]!);
}
