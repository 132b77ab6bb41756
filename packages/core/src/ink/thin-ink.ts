import { distanceToSegment, thin } from '../geometry/index.js';
import type { InkPoint } from './stroke.js';

/** How far, in points, a thinned line may lie from the line that was drawn: a third of a hair. */
export const THIN_TOLERANCE = 0.12;
/** How much wider or narrower a line may become from one point to the next without its being seen, in points. */
const SWELL = 0.25;
/** From here on a way back is one, and no trembling of the hand, in points. */
const LEG = 1;
/** How much wider a pen's line is at full pressure than at none, as a part of its width: see `display/ink.ts`. */
const RANGE = 1.1;

/**
 * Drops samples that carry nothing to see. Pressure counts as a third dimension, scaled by the
 * width so that a swelling of the line is kept just as a bend is.
 *
 * What is drawn is a curve with the points as its control points, so dropping a point that lies exactly
 * between its neighbours may move it: the curve cuts a corner the farther off the neighbours of that are.
 * Points near corners stay, and so do some of those on the way from light to heavy.
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
  const kept = new Set<number>();
  const ends = [0, ...turnsBack(points), points.length - 1];
  for (const [n, to] of ends.slice(1).entries()) {
    const from = ends[n]!;
    const own = thin(to - from + 1, (i, a, b) => offset(from + i, from + a, from + b), tolerance);
    for (const i of own) kept.add(from + i);
  }
  const corners = withCorners(points, [...kept], tolerance);
  return withSwelling(points, corners, width).map((i) => points[i]!);
}

/**
 * Where the pen turns back. Such a point may lie on the straight way from one before it to one after it, where that is
 * gone over again: without it the line would end before it did.
 */
function turnsBack(points: readonly InkPoint[]): number[] {
  const turns: number[] = [];
  // The last place that was somewhere else.
  let before = 0;
  for (let i = 1; i + 1 < points.length; i++) {
    if (distanceOf(points, i, i + 1) < LEG) continue;
    const [from, at, to] = [points[before]!, points[i]!, points[i + 1]!];
    const isBack = (at.x - from.x) * (to.x - at.x) + (at.y - from.y) * (to.y - at.y) < 0;
    if (isBack && distanceOf(points, before, i) >= LEG) turns.push(i);
    before = i;
  }
  return turns;
}

/**
 * How near the curve comes to its control point `i` between the middles of the ways to `a` and to `b`: on a
 * straight way it goes through it, at a corner it passes by.
 */
function cut(points: readonly InkPoint[], a: number, i: number, b: number): number {
  const p = points[i]!;
  const [ux, uy] = [(points[a]!.x - p.x) / 2, (points[a]!.y - p.y) / 2];
  const [vx, vy] = [(points[b]!.x - p.x) / 2, (points[b]!.y - p.y) / 2];
  const [u, v] = [Math.hypot(ux, uy), Math.hypot(vx, vy)];
  if (u === 0 || v === 0) return 0;
  // Where (1 − t)² u + t² v is shortest: where it goes on straight, where it turns by a right angle, and where
  // it turns back.
  const nearest = [1 / 2, 2 / 3, 1].map((power) => {
    const t = u ** power / (u ** power + v ** power);
    const [from, to] = [(1 - t) ** 2, t ** 2];
    return Math.hypot(from * ux + to * vx, from * uy + to * vy);
  });
  return Math.min(...nearest);
}

/** Keeps a point on either side of each corner that would be cut by more than the tolerance. */
function withCorners(
  points: readonly InkPoint[],
  kept: readonly number[],
  tolerance: number,
): number[] {
  const all = new Set(kept);
  for (let n = 1; n + 1 < kept.length; n++) {
    const i = kept[n]!;
    let [a, b] = [kept[n - 1]!, kept[n + 1]!];
    // As it was drawn, the corner was cut by so much already.
    const allowed = cut(points, i - 1, i, i + 1) + tolerance;
    while (cut(points, a, i, b) > allowed) {
      // Whichever is farther comes nearer by half: beside the corner it is as it was.
      const farther = distanceOf(points, a, i) > distanceOf(points, i, b);
      if ((farther && a < i - 1) || b === i + 1) a = Math.ceil((a + i) / 2);
      else b = Math.floor((i + b) / 2);
    }
    all.add(a).add(b);
  }
  return [...all].sort((a, b) => a - b);
}

function distanceOf(points: readonly InkPoint[], a: number, b: number): number {
  return Math.hypot(points[a]!.x - points[b]!.x, points[a]!.y - points[b]!.y);
}

/** Keeps points on the way where the line would swell in a step that is seen. */
function withSwelling(points: readonly InkPoint[], kept: number[], width: number): number[] {
  const all: number[] = [];
  const between = (a: number, b: number): void => {
    const step = Math.abs(points[a]!.pressure - points[b]!.pressure) * RANGE * width;
    if (b - a < 2 || step <= SWELL) return;
    const middle = (a + b) >> 1;
    between(a, middle);
    all.push(middle);
    between(middle, b);
  };
  for (const [n, i] of kept.entries()) {
    if (n > 0) between(kept[n - 1]!, i);
    all.push(i);
  }
  return all;
}
