import fc from 'fast-check';
import { distanceToSegment } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import { thinPoints } from '../ink/index.js';
import type { InkPoint } from '../ink/index.js';
import { handwriting } from '../testing/index.js';
import { displayStroke, trace } from './index.js';

/** The line as it is drawn, as points close to each other with the width there. */
function drawn(points: readonly InkPoint[], width: number): (Point & { width: number })[] {
  const out: (Point & { width: number })[] = [];
  for (const { path, paint } of displayStroke({
    style: { tool: 'pen', ink: 'midnight', width },
    points,
  })) {
    const wide = paint === 'fill' ? 0 : paint.width;
    let from: Point = { x: 0, y: 0 };
    const to = (x: number, y: number, cx = (from.x + x) / 2, cy = (from.y + y) / 2): void => {
      for (let step = 1; step <= 12; step++) {
        const t = step / 12;
        const [a, b, c] = [(1 - t) ** 2, 2 * t * (1 - t), t * t];
        out.push({
          x: a * from.x + b * cx + c * x,
          y: a * from.y + b * cy + c * y,
          width: wide,
        });
      }
      from = { x, y };
    };
    trace(path, {
      moveTo: (x, y) => {
        from = { x, y };
        out.push({ x, y, width: wide });
      },
      lineTo: (x, y) => to(x, y),
      quadraticCurveTo: (cx, cy, x, y) => to(x, y, cx, cy),
      bezierCurveTo: () => fail('Ink has no such curves.'),
      closePath: () => fail('Ink is no outline.'),
    });
  }
  return out;
}

/** How far the farthest place of one line is from the other, in points. */
function apart(one: readonly Point[], other: readonly Point[]): number {
  let most = 0;
  for (const p of one) {
    let least = Infinity;
    for (let i = 1; i < other.length && least > 1e-3; i++)
      least = Math.min(least, distanceToSegment(p, other[i - 1]!, other[i]!));
    most = Math.max(most, least);
  }
  return most;
}

/** Samples of a pen that goes straight from corner to corner. */
function alongCorners(corners: readonly Point[], step: number): InkPoint[] {
  const points: InkPoint[] = [];
  corners.slice(1).forEach((to, n) => {
    const from = corners[n]!;
    const count = Math.max(1, Math.round(Math.hypot(to.x - from.x, to.y - from.y) / step));
    for (let i = n === 0 ? 0 : 1; i <= count; i++)
      points.push({
        x: from.x + ((to.x - from.x) * i) / count,
        y: from.y + ((to.y - from.y) * i) / count,
        pressure: 0.5,
        time: points.length * 8,
      });
  });
  return points;
}

describe('what a thinned line looks like', () => {
  const corner = fc.record({
    x: fc.double({ min: 0, max: 400, noNaN: true }),
    y: fc.double({ min: 0, max: 400, noNaN: true }),
  });

  it('is what was drawn, to a third of a point, with as few points as a triangle or an N needs', () => {
    fc.assert(
      fc.property(
        fc.array(corner, { minLength: 2, maxLength: 6 }),
        fc.double({ min: 1, max: 12, noNaN: true }),
        (corners, step) => {
          const points = alongCorners(corners, step);
          const thinned = thinPoints(points, 2.4);
          const [before, after] = [drawn(points, 2.4), drawn(thinned, 2.4)];
          expect(apart(before, after)).toBeLessThan(0.34);
          expect(apart(after, before)).toBeLessThan(0.34);
          expect(thinned.length).toBeLessThanOrEqual(3 * corners.length);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('reaches as far as it was drawn, where the same way is gone over again', () => {
    const ends = [400, 0, 400, 0, 0, 400].map((x) => ({ x, y: 30 }));
    const points = alongCorners(ends, 12);
    const thinned = thinPoints(points, 2.4);
    const after = drawn(thinned, 2.4);
    expect(apart(drawn(points, 2.4), after)).toBeLessThan(0.34);
    expect(Math.min(...after.map(({ x }) => x))).toBe(0);
    expect(thinned.length).toBeLessThanOrEqual(3 * ends.length);
    expect(thinPoints([], 2.4)).toEqual([]);
    // Going there and back by less than a hand trembles is nothing to keep.
    const still = Array.from({ length: 200 }, (_, i) => ({
      ...{ x: 40 + 0.1 * (i % 2), y: 40, pressure: 0.5, time: 8 * i },
    }));
    expect(thinPoints(still, 2.4).length).toBeLessThan(5);
  });

  it('is the handwriting that was drawn, with a good part of its points gone', () => {
    let [all, kept] = [0, 0];
    for (let seed = 0; seed < 30; seed++) {
      const { points } = handwriting(seed, { count: 120, stylus: seed % 2 === 0 });
      const thinned = thinPoints(points, 2.4);
      expect(apart(drawn(points, 2.4), drawn(thinned, 2.4))).toBeLessThan(0.34);
      all += points.length;
      kept += thinned.length;
    }
    expect(kept / all).toBeLessThan(0.75);
  });

  it('swells as it was drawn where the pen was pressed more and more on a straight line', () => {
    const points = Array.from({ length: 80 }, (_, i) => ({
      x: i * 3,
      y: 20,
      pressure: 0.1 + (0.8 * i) / 79,
      time: i * 8,
    }));
    const thinned = thinPoints(points, 6);
    expect(thinned.length).toBeLessThan(40);
    const before = drawn(points, 6);
    for (const { x, width } of drawn(thinned, 6)) {
      const there = before.reduce((a, b) => (Math.abs(a.x - x) < Math.abs(b.x - x) ? a : b));
      expect(Math.abs(there.width - width)).toBeLessThan(0.35);
    }
  });
});
