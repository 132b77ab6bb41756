import { distanceToSegment, segmentDistance } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import { outlineOf, writtenMark } from './figure.js';
import { corners, frameContains } from './frame.js';
import type { ThingSpec } from './thing.js';

/** Whether a touch at `p` means this thing: on it, or nearer than `slack` points. */
export function thingAt(thing: ThingSpec, p: Point, slack: number): boolean {
  if (thing.kind !== 'shape') return frameContains(thing.frame, p, slack);
  const { points, closed } = outlineOf(thing);
  // What is filled is touched anywhere; what is only an outline, on the outline.
  if (closed && thing.fill && inside(points, p)) return true;
  const reach = slack + (thing.outline?.width ?? 0) / 2;
  return sides(points, closed).some(([a, b]) => distanceToSegment(p, a, b) <= reach);
}

/** Whether an eraser of `radius` points, moved from `a` to `b`, touched the thing. */
export function thingTouched(thing: ThingSpec, a: Point, b: Point, radius: number): boolean {
  const runs =
    thing.kind === 'mark'
      ? writtenMark(thing).runs.map((points) => ({ points, closed: false }))
      : [
          thing.kind === 'shape'
            ? outlineOf(thing)
            : { points: corners(thing.frame), closed: true },
        ];
  const pen = thing.kind === 'shape' ? (thing.outline?.width ?? 0) / 2 : 2;
  return runs.some(
    ({ points, closed }) =>
      (closed && inside(points, a)) ||
      sides(points, closed).some(([c, d]) => segmentDistance(a, b, c, d) <= radius + pen),
  );
}

function sides(points: readonly Point[], closed: boolean): [Point, Point][] {
  const list: [Point, Point][] = [];
  for (let i = 1; i < points.length; i++) list.push([points[i - 1]!, points[i]!]);
  if (closed) list.push([points[points.length - 1]!, points[0]!]);
  return list;
}

/** Whether a place is inside a polygon, by counting the sides that a ray from it crosses. */
export function inside(polygon: readonly Point[], { x, y }: Point): boolean {
  let odd = false;
  for (const [a, b] of sides(polygon, true))
    if (a.y > y !== b.y > y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) odd = !odd;
  return odd;
}
