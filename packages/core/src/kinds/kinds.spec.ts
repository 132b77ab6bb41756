import fc from 'fast-check';
import {
  bounds,
  distance,
  corners,
  frameBounds,
  frameContains,
  frameMatrix,
  inside,
  turned,
  transform,
} from '../geometry/index.js';
import type { Point, Frame } from '../geometry/index.js';
import { dashes, MARKS, outlineOf, isItemAt, isItemTouched } from './index.js';
import type { ShapeSpec, ItemSpec } from './index.js';
import { DisplayListBuilder, trace } from '../display/index.js';
import type { DisplayItem } from '../display/index.js';
import { drawItem } from './index.js';

const drawn = (item: ItemSpec): DisplayItem[] => {
  const list = new DisplayListBuilder();
  drawItem(item, list);
  return list.done();
};
const frame: Frame = { x: 100, y: 200, width: 80, height: 40, turn: 0 };
const shape = (change: Partial<ShapeSpec>): ShapeSpec => ({
  kind: 'shape',
  shape: 'box',
  order: 'a0',
  layer: 'material',
  frame,
  outline: { colour: '#000000', width: 2 },
  fill: null,
  ...change,
});
const places = (list: readonly DisplayItem[]): Point[] => {
  const out: Point[] = [];
  const take = (x: number, y: number) => void out.push({ x, y });
  for (const item of list)
    if (item.kind === 'path')
      trace(item.path, {
        moveTo: take,
        lineTo: take,
        quadraticCurveTo: (_x, _y, x, y) => take(x, y),
        bezierCurveTo: (_a, _b, _c, _d, x, y) => take(x, y),
        closePath: () => undefined,
      });
  return out;
};

const anyFrame = fc.record({
  x: fc.integer({ min: -500, max: 500 }),
  y: fc.integer({ min: -500, max: 500 }),
  width: fc.integer({ min: 1, max: 400 }),
  height: fc.integer({ min: 1, max: 400 }),
  turn: fc.integer({ min: -360, max: 360 }),
});

describe('a frame', () => {
  it('has its corners where its matrix takes those of the unit square', () => {
    fc.assert(
      fc.property(anyFrame, (f) => {
        const square = [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
          { x: 1, y: 1 },
          { x: 0, y: 1 },
        ];
        corners(f).forEach((corner, i) =>
          expect(distance(corner, transform(frameMatrix(f), square[i]!))).toBeLessThan(1e-6),
        );
      }),
    );
  });

  it('holds its middle and nothing beyond its bounds, however it is turned', () => {
    fc.assert(
      fc.property(anyFrame, fc.integer(), (f, n) => {
        const box = frameBounds(f);
        expect(frameContains(f, { x: f.x + f.width / 2, y: f.y + f.height / 2 })).toBeTrue();
        const out = { x: box.x - 1 - Math.abs(n % 50), y: box.y + (n % 50) };
        expect(frameContains(f, out)).toBeFalse();
      }),
    );
  });

  it('turns clockwise, as the page is seen', () => {
    expect(turned({ x: 10, y: 0 }, { x: 0, y: 0 }, 90).y).toBeCloseTo(10, 9);
  });
});

describe('what a thing looks like', () => {
  it('fills a shape first, and draws its outline over it', () => {
    const list = drawn(shape({ fill: '#fdf6e0' }));
    expect(list.map((item) => item.kind === 'path' && item.paint)).toEqual(['fill', { width: 2 }]);
    expect(drawn(shape({ outline: null }))).toEqual([]);
  });

  it('stays within its frame, but for the width of its line', () => {
    for (const kind of ['box', 'ellipse', 'triangle'] as const) {
      const box = bounds(places(drawn(shape({ shape: kind }))))!;
      expect(box.x).toBeCloseTo(frame.x, 6);
      expect(box.width).toBeCloseTo(frame.width, 6);
      expect(box.height).toBeCloseTo(frame.height, 6);
    }
    for (const mark of MARKS) {
      const box = bounds(
        places(drawn({ ...shape({}), kind: 'mark', mark, colour: '#c22f2f' } as never)),
      )!;
      expect(box.x).withContext(mark).toBeGreaterThanOrEqual(frame.x);
      expect(box.y + box.height)
        .withContext(mark)
        .toBeLessThanOrEqual(frame.y + frame.height);
    }
  });

  it('draws an ellipse that is off by less than a twentieth of a point', () => {
    const { points } = outlineOf(
      shape({ shape: 'ellipse', frame: { ...frame, width: 300, height: 300 } }),
    );
    const middle = { x: 250, y: 350 };
    points.forEach((p, i) => {
      const next = points[(i + 1) % points.length]!;
      const half = { x: (p.x + next.x) / 2, y: (p.y + next.y) / 2 };
      expect(150 - distance(half, middle)).toBeLessThan(0.05);
    });
  });

  it('ends an arrow’s line inside its head, whose tip is the end', () => {
    const line = shape({
      shape: 'line',
      heads: 'both',
      points: [
        [0, 0],
        [1, 1],
      ],
    });
    const list = drawn(line);
    expect(list.length).toBe(3);
    const [first, last] = [places([list[0]!])[0]!, places([list[0]!]).at(-1)!];
    const tips = [places([list[1]!])[0]!, places([list[2]!])[0]!];
    const ends = corners(frame);
    expect(Math.min(...tips.map((tip) => distance(tip, ends[2]!)))).toBeLessThan(1e-6);
    expect(Math.min(...tips.map((tip) => distance(tip, ends[0]!)))).toBeLessThan(1e-6);
    expect(distance(first, last)).toBeLessThan(distance(ends[0]!, ends[2]!) - 5);
  });

  it('cuts dashes that are together shorter than the line, and never leave it', () => {
    const line = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
      { x: 100, y: 50 },
    ];
    const pieces = dashes(line, false, 2);
    expect(pieces.length).toBeGreaterThan(8);
    for (const piece of pieces)
      for (const { x, y } of piece) expect(y === 0 || Math.abs(x - 100) < 1e-9).toBeTrue();
  });
});

describe('touching a thing', () => {
  const middle = { x: 140, y: 220 };

  it('means a filled shape anywhere, an empty one at its outline only', () => {
    expect(isItemAt(shape({ fill: '#ffffff' }), middle, 3)).toBeTrue();
    expect(isItemAt(shape({}), middle, 3)).toBeFalse();
    expect(isItemAt(shape({}), { x: 101, y: 220 }, 3)).toBeTrue();
    expect(isItemAt(shape({}), { x: 94, y: 220 }, 3)).toBeFalse();
  });

  it('means words as far as they reach, not beside them, and a slip anywhere', () => {
    const frame = { x: 100, y: 200, width: 400, height: 30, turn: 0 };
    const words = (slip: string | null) => ({
      kind: 'text' as const,
      frame,
      text: [{ runs: [{ text: 'High water' }] }],
      ...{ font: 'plain' as const, size: 20, colour: '#000000', align: 'start' as const, slip },
      lines: [{ y: 20, runs: [{ text: 'High water', x: 0, width: 90 }] }],
      layer: 'material' as const,
      order: 'a0',
    });
    expect(isItemAt(words(null), { x: 150, y: 215 }, 3)).toBeTrue();
    expect(isItemAt(words(null), { x: 192, y: 215 }, 3)).toBeTrue();
    expect(isItemAt(words(null), { x: 490, y: 215 }, 3)).toBeFalse();
    expect(isItemAt(words('#fff3b0'), { x: 490, y: 215 }, 3)).toBeTrue();
    // Turned by a quarter about its middle, the words stand above each other.
    const turned = { ...words(null), frame: { ...frame, turn: 90 } };
    expect(isItemAt(turned, { x: 300, y: 60 }, 3)).toBeTrue();
    expect(isItemAt(turned, { x: 300, y: 390 }, 3)).toBeFalse();
  });

  it('with the eraser works along the whole sweep', () => {
    const line = shape({
      shape: 'line',
      points: [
        [0, 0],
        [1, 1],
      ],
    });
    expect(isItemTouched(line, { x: 140, y: 100 }, { x: 140, y: 300 }, 2)).toBeTrue();
    expect(isItemTouched(line, { x: 50, y: 100 }, { x: 60, y: 300 }, 2)).toBeFalse();
  });

  it('knows inside from outside, also where a polygon has a bay', () => {
    const bay = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
      { x: 5, y: 3 },
      { x: 0, y: 10 },
    ];
    expect(inside(bay, { x: 5, y: 1 })).toBeTrue();
    expect(inside(bay, { x: 5, y: 8 })).toBeFalse();
  });
});
