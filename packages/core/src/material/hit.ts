import { distanceToSegment, segmentDistance } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import { outlineOf, writtenMark } from './figure.js';
import { BASELINE, LINE_HEIGHT } from '../text/index.js';
import { corners, frameContains, middle, turned } from './frame.js';
import type { ThingSpec } from './thing.js';

/** Whether a touch at `p` means this thing: on it, or nearer than `slack` points. */
export function thingAt(thing: ThingSpec, p: Point, slack: number): boolean {
  if (thing.kind === 'text') return textAt(thing, p, slack);
  if (thing.kind !== 'shape') return frameContains(thing.frame, p, slack);
  const { points, closed } = outlineOf(thing);
  // What is filled is touched anywhere; what is only an outline, on the outline.
  if (closed && thing.fill && inside(points, p)) return true;
  const reach = slack + (thing.outline?.width ?? 0) / 2;
  return sides(points, closed).some(([a, b]) => distanceToSegment(p, a, b) <= reach);
}

/** A slip is touched anywhere; words that stand on the page are, as far as they reach, and not beside them. */
function textAt(
  { frame, lines, size, slip }: Extract<ThingSpec, { kind: 'text' }>,
  p: Point,
  slack: number,
): boolean {
  if (!frameContains(frame, p, slack)) return false;
  const runs = lines.flatMap((line) => line.runs.filter(({ text }) => text.trim() !== ''));
  if (slip !== null || runs.length === 0) return true;
  const q = turned(p, middle(frame), -frame.turn);
  const left = frame.x + Math.min(...runs.map(({ x }) => x));
  const right = frame.x + Math.max(...runs.map(({ x, width }) => x + width));
  const bottom = frame.y + (lines.at(-1)!.y + (LINE_HEIGHT - BASELINE) * size);
  return q.x >= left - slack && q.x <= right + slack && q.y <= bottom + slack;
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
