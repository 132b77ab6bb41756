import { distanceToSegment, segmentDistance } from './point.js';
import type { Point } from './point.js';

/** Sides of a run of points, the one that closes it included where it is closed. */
export function sides(points: readonly Point[], closed: boolean): [Point, Point][] {
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

/** A run of points, and whether it comes back to its start. */
export interface PointRun {
  readonly points: readonly Point[];
  readonly closed: boolean;
}

/** Whether a place is on a run, or nearer to it than `reach` points. */
export function isOnRun({ points, closed }: PointRun, p: Point, reach: number): boolean {
  return sides(points, closed).some(([a, b]) => distanceToSegment(p, a, b) <= reach);
}

/** Whether a disc of `radius` points, moved from `a` to `b`, touches a run, or begins inside of it where it is closed. */
export function isRunTouched(
  { points, closed }: PointRun,
  a: Point,
  b: Point,
  radius: number,
): boolean {
  return (
    (closed && inside(points, a)) ||
    sides(points, closed).some(([c, d]) => segmentDistance(a, b, c, d) <= radius)
  );
}
