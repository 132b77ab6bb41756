import { bounds, distance, distanceToSegment, grow, overlaps } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import { strokeBounds } from './hit.js';
import type { InkPoint, Stroke } from './stroke.js';

/** How finely a line is looked at where the eraser may have been: parts of the eraser's radius. */
const FINENESS = 4;
/** A piece shorter than this part of the line's width isn't worth keeping. */
const CRUMB = 0.5;

/**
 * What is left of a line after an eraser of `radius` points went from `a` to `b`: the pieces outside of
 * where it was, or `null` where it didn't touch the line's middle. No piece has a point that the line hadn't,
 * but for its ends.
 */
export function cutStroke(stroke: Stroke, a: Point, b: Point, radius: number): Stroke[] | null {
  if (!overlaps(grow(bounds([a, b])!, radius), strokeBounds(stroke))) return null;
  const gone = (p: Point): boolean => distanceToSegment(p, a, b) <= radius;
  const { points } = stroke;
  const pieces: InkPoint[][] = [];
  let piece: InkPoint[] = [];
  let cut = false;
  const end = (): void => {
    if (piece.length > 0) pieces.push(piece);
    piece = [];
  };
  points.forEach((to, i) => {
    const from = points[i - 1];
    if (from) {
      // Between two points that are far from each other the eraser may have been, too.
      const steps = Math.ceil((distance(from, to) / radius) * FINENESS);
      let last = from;
      for (let step = 1; step < steps; step++) {
        const p = between(from, to, step / steps);
        if (gone(p) !== gone(last)) {
          cut = true;
          if (gone(p)) {
            if (last !== from) piece.push(last);
            end();
          } else piece.push(p);
        }
        last = p;
      }
      if (gone(last) && !gone(to)) cut = true;
      else if (!gone(last) && gone(to)) {
        if (last !== from) piece.push(last);
        end();
      }
    }
    if (gone(to)) {
      cut = true;
      end();
    } else piece.push(to);
  });
  end();
  if (!cut) return null;
  return pieces
    .filter((kept) => lengthOf(kept) > stroke.style.width * CRUMB)
    .map((kept) => ({ style: stroke.style, points: fromZero(kept) }));
}

function between(from: InkPoint, to: InkPoint, part: number): InkPoint {
  const mix = (p: number, q: number): number => p + (q - p) * part;
  return {
    x: mix(from.x, to.x),
    y: mix(from.y, to.y),
    pressure: mix(from.pressure, to.pressure),
    time: Math.round(mix(from.time, to.time)),
  };
}

function lengthOf(points: readonly InkPoint[]): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) length += distance(points[i - 1]!, points[i]!);
  return length;
}

/** A piece begins when its first point was drawn. */
function fromZero(points: readonly InkPoint[]): InkPoint[] {
  const began = points[0]!.time;
  return points.map((point) => ({ ...point, time: point.time - began }));
}
