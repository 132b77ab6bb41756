import { bounds, distance, grow, overlaps, segmentDistance } from '../geometry/index.js';
import type { Point, Rect } from '../geometry/index.js';
import type { Stroke } from './stroke.js';

/** The rectangle that holds all of a stroke's ink, its width included, in points. */
export function strokeBounds(stroke: Stroke): Rect {
  return grow(bounds(stroke.points)!, stroke.style.width / 2);
}

/** Whether an eraser of `radius` points, moved from `a` to `b`, touched the stroke. */
export function touches(stroke: Stroke, a: Point, b: Point, radius: number): boolean {
  const reach = radius + stroke.style.width / 2;
  if (!overlaps(grow(bounds([a, b])!, radius), strokeBounds(stroke))) return false;
  const [first, ...rest] = stroke.points;
  let from: Point = first!;
  if (rest.length === 0) return segmentDistance(a, b, from, from) <= reach;
  for (const to of rest) {
    if (distance(from, a) <= reach || segmentDistance(a, b, from, to) <= reach) return true;
    from = to;
  }
  return false;
}
