import type { InkItem } from '../board/index.js';
import { newId } from '../id/index.js';
import { encodeStroke } from '../ink/index.js';
import type { Point } from '../geometry/index.js';
import { corners, turned } from '../geometry/index.js';
import { outlineOf } from '../kinds/index.js';
import type { ShapeSpec } from '../kinds/index.js';
import { cropTo, recognizeShape, uncropped } from './index.js';

/** A hand that goes through these places and trembles a little. */
function drawn(
  places: readonly Point[],
  tremble = 1.2,
  ink: 'pen' | 'highlighter' = 'pen',
): InkItem {
  const points = places.slice(1).flatMap((to, i) => {
    const from = places[i]!;
    return Array.from({ length: 12 }, (_, n) => ({
      x: from.x + ((to.x - from.x) * n) / 12 + Math.sin(i * 7 + n * 2.1) * tremble,
      y: from.y + ((to.y - from.y) * n) / 12 + Math.cos(i * 5 + n * 1.7) * tremble,
      pressure: 0.5,
      time: (i * 12 + n) * 8,
    }));
  });
  points.push({ ...places.at(-1)!, pressure: 0.5, time: places.length * 100 });
  const style =
    ink === 'pen'
      ? ({ tool: 'pen', ink: 'fern', width: 2.4 } as const)
      : ({ tool: 'highlighter', ink: 'mint', width: 16 } as const);
  return {
    kind: 'ink',
    id: newId(),
    by: newId(),
    at: 1,
    lesson: null,
    removed: null,
    ink: encodeStroke({ style, points }),
  };
}

const p = (x: number, y: number): Point => ({ x, y });
const round = (cx: number, cy: number, rx: number, ry: number, turn = 0): Point[] =>
  Array.from({ length: 33 }, (_, i) => {
    const angle = (i * 2 * Math.PI) / 32;
    return turned(p(cx + rx * Math.cos(angle), cy + ry * Math.sin(angle)), p(cx, cy), turn);
  });
const shape = (item: InkItem): ShapeSpec | null => recognizeShape(item) as ShapeSpec | null;

describe('tidying what was roughly drawn', () => {
  it('makes a line straight, and level where it nearly was', () => {
    const line = shape(drawn([p(50, 50), p(140, 53), p(250, 54)]))!;
    expect([line.shape, line.heads]).toEqual(['line', 'none']);
    const ends = outlineOf(line).points;
    expect(ends[0]!.y).toBeCloseTo(ends[1]!.y, 1);
    const slanted = outlineOf(shape(drawn([p(50, 50), p(150, 120)]))!).points;
    expect(slanted[1]!.y - slanted[0]!.y).toBeGreaterThan(60);
  });

  it('knows an arrow by the head that was drawn at its end', () => {
    const arrow = shape(drawn([p(50, 80), p(220, 90), p(195, 75), p(220, 90), p(192, 103)]))!;
    expect([arrow.shape, arrow.heads]).toEqual(['line', 'end']);
    expect(outlineOf(arrow).points[1]!.x).toBeGreaterThan(210);
  });

  it('makes a box of four corners, also a slanted one', () => {
    const box = shape(drawn([p(60, 60), p(200, 64), p(196, 150), p(62, 147), p(60, 63)]))!;
    expect([box.shape, box.frame.turn]).toEqual(['box', 0]);
    expect(box.frame.width).toBeGreaterThan(130);
    const square = [p(100, 100), p(200, 100), p(200, 180), p(100, 180), p(100, 100)];
    const tilted = shape(drawn(square.map((q) => turned(q, p(150, 140), 30))))!;
    expect(tilted.shape).toBe('box');
    expect(Math.abs((((tilted.frame.turn % 90) + 90) % 90) - 30)).toBeLessThan(6);
    expect(corners(tilted.frame).every(({ x }) => x > 80 && x < 220)).toBeTrue();
  });

  it('makes a triangle and an ellipse, level or turned', () => {
    expect(shape(drawn([p(100, 50), p(180, 160), p(30, 165), p(98, 52)]))!.shape).toBe('polygon');
    const circle = shape(drawn(round(200, 200, 60, 58)))!;
    expect(circle.shape).toBe('ellipse');
    expect(circle.frame.width).toBeCloseTo(120, -1);
    const turnedOne = shape(drawn(round(200, 200, 90, 35, 45)))!;
    expect([turnedOne.shape, turnedOne.frame.turn]).toEqual(['ellipse', 45]);
  });

  it('takes over the pen’s colour and width', () => {
    expect(shape(drawn([p(50, 50), p(250, 54)]))!.outline).toEqual({
      colour: '#2c7a3f',
      width: 2.4,
    });
  });

  it('leaves writing alone, and the highlighter, and dots', () => {
    expect(
      shape(drawn([p(0, 50), p(20, 10), p(30, 60), p(55, 5), p(70, 66), p(120, 30)])),
    ).toBeNull();
    expect(shape(drawn([p(50, 50), p(250, 54)], 1, 'highlighter'))).toBeNull();
    expect(shape(drawn([p(50, 50), p(52, 51)], 0))).toBeNull();
  });
});

describe('cropping a picture', () => {
  const frame = { x: 100, y: 100, width: 200, height: 100, turn: 0 };

  it('cuts a side away, and the rest stays where it was', () => {
    const left = cropTo(
      { frame, crop: null },
      { across: -1, down: 0 },
      { width: 150, height: 100 },
    );
    expect(left.frame).toEqual({ ...frame, x: 150, width: 150 });
    expect(left.crop).toEqual({ x: 0.25, y: 0, width: 0.75, height: 1 });
    const more = cropTo(left, { across: 1, down: 1 }, { width: 75, height: 50 });
    expect(more.frame).toEqual({ ...frame, x: 150, width: 75, height: 50 });
    expect(more.crop).toEqual({ x: 0.25, y: 0, width: 0.375, height: 0.5 });
  });

  it('never shows more than there is, nor nothing', () => {
    const wide = cropTo({ frame, crop: null }, { across: 1, down: 0 }, { width: 900, height: 100 });
    expect(wide).toEqual({ frame, crop: null });
    const none = cropTo({ frame, crop: null }, { across: 1, down: 0 }, { width: 0, height: 100 });
    expect(none.crop!.width).toBeGreaterThan(0);
  });

  it('gives the whole picture back where it was, however it is turned', () => {
    for (const turn of [0, 35, 180]) {
      const whole = { frame: { ...frame, turn }, crop: null };
      const cut = cropTo(whole, { across: -1, down: 1 }, { width: 120, height: 60 });
      const back = uncropped(cut);
      corners(back.frame).forEach((corner, i) => {
        const was = corners(whole.frame)[i]!;
        expect(Math.hypot(corner.x - was.x, corner.y - was.y)).toBeLessThan(1e-6);
      });
    }
  });
});
