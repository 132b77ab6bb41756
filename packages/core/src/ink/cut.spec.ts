import fc from 'fast-check';
import { distanceToSegment } from '../geometry/index.js';
import { handwriting } from '../testing/index.js';
import { cutStroke, decodeStroke, encodeStroke } from './index.js';
import type { InkPoint, Stroke } from './index.js';

const line = (...xs: number[]): Stroke => ({
  style: { tool: 'pen', ink: 'midnight', width: 2 },
  points: xs.map((x, i): InkPoint => ({ x, y: 10, pressure: 0.5, time: i * 10 })),
});

describe('a line of which a part is rubbed out', () => {
  it('is left in two where the eraser crossed it, also between points far apart', () => {
    const pieces = cutStroke(line(0, 100), { x: 50, y: 0 }, { x: 50, y: 20 }, 5)!;
    expect(pieces.length).toBe(2);
    const [left, right] = pieces.map(({ points }) => points);
    expect(left![0]!.x).toBe(0);
    expect(left![left!.length - 1]!.x).toBeCloseTo(45, -0.5);
    expect(right![0]!.x).toBeCloseTo(55, -0.5);
    expect(right![right!.length - 1]!.x).toBe(100);
    // Each begins when its first point was drawn.
    expect(right![0]!.time).toBe(0);
  });

  it('loses its end, its beginning, or all', () => {
    const at = (x: number, radius = 5) =>
      cutStroke(line(0, 50, 100), { x, y: 10 }, { x, y: 10 }, radius)!;
    expect(at(100).length).toBe(1);
    expect(at(100)[0]!.points.at(-1)!.x).toBeLessThanOrEqual(95.1);
    expect(at(0)[0]!.points[0]!.x).toBeGreaterThanOrEqual(94 - 90);
    expect(at(50, 80)).toEqual([]);
    // A dot goes as a whole.
    expect(cutStroke(line(7), { x: 7, y: 10 }, { x: 7, y: 10 }, 3)).toEqual([]);
  });

  it('stays as it is where nothing touched it', () => {
    expect(cutStroke(line(0, 100), { x: 50, y: 40 }, { x: 60, y: 40 }, 5)).toBeNull();
    expect(cutStroke(line(0, 100), { x: 50, y: 16 }, { x: 60, y: 16 }, 5)).toBeNull();
  });

  it('keeps nothing where the eraser was, and all that is away from it', () => {
    const place = fc.record({
      x: fc.double({ min: 80, max: 260, noNaN: true }),
      y: fc.double({ min: 80, max: 130, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.integer(),
        place,
        place,
        fc.double({ min: 1, max: 12, noNaN: true }),
        (seed, a, b, radius) => {
          const stroke = decodeStroke(encodeStroke(handwriting(seed)));
          const pieces = cutStroke(stroke, a, b, radius);
          const far = (p: InkPoint): number => distanceToSegment(p, a, b);
          if (!pieces) {
            for (const p of stroke.points) expect(far(p)).toBeGreaterThan(radius);
            return;
          }
          const kept = pieces.flatMap(({ points }) => points);
          for (const p of kept) expect(far(p)).toBeGreaterThan(radius);
          // A crumb may go with it: at most half a line's width long.
          for (const p of stroke.points)
            if (far(p) > radius + stroke.style.width)
              expect(kept.some(({ x, y }) => x === p.x && y === p.y)).toBeTrue();
        },
      ),
    );
  });
});
