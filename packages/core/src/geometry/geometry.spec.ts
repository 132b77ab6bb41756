import fc from 'fast-check';
import {
  compose,
  distanceToSegment,
  inverse,
  pageToUserSpace,
  rotation,
  segmentDistance,
  shownSize,
  thin,
  transform,
  visibleBox,
} from './index.js';
import type { PdfPlacement, Point, Rotation } from './index.js';

const close = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y) < 1e-6;

describe('pages of a PDF (ISO 32000-1, 7.7.3.3)', () => {
  const box = [100, 200, 400, 600] as const;

  it('cuts the crop box to the media box, and ignores one that lies outside', () => {
    expect(visibleBox([0, 0, 600, 800], [50, 50, 900, 700])).toEqual([50, 50, 600, 700]);
    expect(visibleBox([0, 0, 600, 800], [700, 0, 900, 100])).toEqual([0, 0, 600, 800]);
  });

  it('takes corners in any order, and a Letter page where there is no usable box', () => {
    expect(visibleBox([600, 800, 0, 0], null)).toEqual([0, 0, 600, 800]);
    expect(visibleBox(null, null)).toEqual([0, 0, 612, 792]);
    expect(visibleBox([5, 5, 5, 900], null)).toEqual([0, 0, 612, 792]);
  });

  it('reads Rotate as quarter turns, negative ones too', () => {
    expect([0, 90, 450, -90, 45].map(rotation)).toEqual([0, 90, 90, 270, 0]);
  });

  it('shows a quarter-turned page on its side, and counts UserUnit', () => {
    expect(shownSize({ box, rotate: 0, unit: 1 })).toEqual({ width: 300, height: 400 });
    expect(shownSize({ box, rotate: 270, unit: 2 })).toEqual({ width: 800, height: 600 });
  });

  it('puts the shown top left corner where the turned page has it', () => {
    const corner = (rotate: Rotation) =>
      transform(pageToUserSpace({ box, rotate, unit: 1 }), { x: 0, y: 0 });
    expect(corner(0)).toEqual({ x: 100, y: 600 });
    expect(corner(90)).toEqual({ x: 100, y: 200 });
    expect(corner(180)).toEqual({ x: 400, y: 200 });
    expect(corner(270)).toEqual({ x: 400, y: 600 });
  });

  it('maps the whole shown page onto the whole box, whatever the turn and unit', () => {
    const placements = fc.record({
      box: fc
        .tuple(
          fc.integer(),
          fc.integer(),
          fc.integer({ min: 1, max: 5000 }),
          fc.integer({ min: 1, max: 5000 }),
        )
        .map(([x, y, w, h]) => [x % 9999, y % 9999, (x % 9999) + w, (y % 9999) + h] as const),
      rotate: fc.constantFrom<Rotation>(0, 90, 180, 270),
      unit: fc.constantFrom(0.5, 1, 2.5),
    });
    fc.assert(
      fc.property(placements, (placement: PdfPlacement) => {
        const { width, height } = shownSize(placement);
        const map = pageToUserSpace(placement);
        const a = transform(map, { x: 0, y: 0 });
        const b = transform(map, { x: width, y: height });
        const [x0, y0, x1, y1] = placement.box;
        return (
          close({ x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) }, { x: x0, y: y0 }) &&
          close({ x: Math.max(a.x, b.x), y: Math.max(a.y, b.y) }, { x: x1, y: y1 })
        );
      }),
    );
  });
});

describe('maps', () => {
  it('go there and back', () => {
    const map = pageToUserSpace({ box: [10, 20, 300, 500], rotate: 90, unit: 2 });
    const p = { x: 12, y: 34 };
    expect(close(transform(inverse(map), transform(map, p)), p)).toBeTrue();
    expect(close(transform(compose(map, inverse(map)), p), p)).toBeTrue();
    expect(() => inverse([0, 0, 0, 0, 1, 1])).toThrowError(RangeError);
  });
});

describe('distances', () => {
  it('are measured to the nearest place of a segment', () => {
    expect(distanceToSegment({ x: 5, y: 3 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(3);
    expect(distanceToSegment({ x: 13, y: 4 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(5);
  });

  it('are nothing between segments that cross', () => {
    const d = segmentDistance({ x: 0, y: 0 }, { x: 2, y: 2 }, { x: 0, y: 2 }, { x: 2, y: 0 });
    expect(d).toBe(0);
  });
});

describe('thinning by Douglas and Peucker', () => {
  const perpendicular = (line: Point[]) => (i: number, a: number, b: number) =>
    distanceToSegment(line[i]!, line[a]!, line[b]!);

  // The worked example of Rosetta Code, "Ramer-Douglas-Peucker line simplification", from memory.
  it('keeps what the worked example keeps', () => {
    const line = [0, 0.1, -0.1, 5, 6, 7, 8.1, 9, 9, 9].map((y, x) => ({ x, y }));
    const kept = thin(line.length, perpendicular(line), 1).map((i) => line[i]);
    expect(kept).toEqual([
      { x: 0, y: 0 },
      { x: 2, y: -0.1 },
      { x: 3, y: 5 },
      { x: 7, y: 9 },
      { x: 9, y: 9 },
    ]);
  });

  it('never strays farther than its tolerance, and always keeps the ends', () => {
    const lines = fc.array(
      fc.record({ x: fc.integer({ max: 500, min: -500 }), y: fc.integer({ max: 500, min: -500 }) }),
      { minLength: 1, maxLength: 60 },
    );
    fc.assert(
      fc.property(lines, fc.integer({ min: 0, max: 40 }), (line, tolerance) => {
        const kept = thin(line.length, perpendicular(line), tolerance);
        if (kept[0] !== 0 || kept[kept.length - 1] !== line.length - 1) return false;
        return line.every((p, i) => {
          const after = kept.findIndex((k) => k >= i);
          const a = line[kept[Math.max(0, after - 1)]!]!;
          return distanceToSegment(p, a, line[kept[after]!]!) <= tolerance + 1e-9;
        });
      }),
    );
  });

  it('takes a line of 200,000 points without running out of stack', () => {
    const offset = (i: number) => (i % 2 ? 1 : 2);
    expect(thin(2000, offset, 0.5).length).toBe(2000);
    expect(thin(200_000, () => 0, 0.5)).toEqual([0, 199_999]);
  });
});
