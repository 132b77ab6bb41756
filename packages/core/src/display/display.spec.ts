import { decodeStroke, encodeStroke } from '../ink/index.js';
import type { Stroke } from '../ink/index.js';
import { handwriting } from '../testing/index.js';
import { displayStretch, displayStroke, trace } from './index.js';
import type { DisplayPath } from './index.js';

/** Places a path goes through, without control points. */
function places({ path }: DisplayPath): [number, number][] {
  const out: [number, number][] = [];
  trace(path, {
    moveTo: (x, y) => void out.push([x, y]),
    lineTo: (x, y) => void out.push([x, y]),
    quadraticCurveTo: (_cx, _cy, x, y) => void out.push([x, y]),
    bezierCurveTo: (_cx, _cy, _dx, _dy, x, y) => void out.push([x, y]),
    closePath: () => undefined,
  });
  return out;
}

const widths = (list: DisplayPath[]): number[] =>
  list.map(({ paint }) => (paint === 'fill' ? 0 : paint.width));

describe('what a stroke looks like', () => {
  it('is a line of the pen’s width where there was no pressure', () => {
    const list = displayStroke(handwriting(1, { stylus: false, width: 5 }));
    expect(list.map(({ paint, blend }) => [paint, blend])).toEqual([[{ width: 5 }, 'normal']]);
  });

  it('swells and narrows by steps too small to see, where there was', () => {
    const list = displayStroke(handwriting(2, { width: 2.4 }));
    expect(list.length).toBeGreaterThan(4);
    const all = widths(list);
    expect(Math.max(...all)).toBeGreaterThan(Math.min(...all) * 1.3);
    all.slice(1).forEach((width, i) => expect(Math.abs(width - all[i]!)).toBeLessThan(0.3));
  });

  it('is the pen’s width at half pressure, narrower below, wider above', () => {
    const at = (pressure: number): number => {
      const points = [0, 10, 20].map((x, i) => ({
        x,
        y: 0,
        pressure: pressure + i * 0.001,
        time: i,
      }));
      return widths(displayStroke({ style: { tool: 'pen', ink: 'coal', width: 10 }, points }))[0]!;
    };
    expect(at(0.1)).toBeLessThan(6);
    expect(at(0.53)).toBeCloseTo(10.3, 0);
    expect(at(0.95)).toBeGreaterThan(14);
  });

  it('goes on without a gap from piece to piece, from the first point to the last', () => {
    for (const seed of [3, 4, 5]) {
      const stroke = handwriting(seed);
      const pieces = displayStroke(stroke).map(places);
      pieces.slice(1).forEach((piece, i) => expect(piece[0]).toEqual(pieces[i]!.at(-1)!));
      const [first, last] = [stroke.points[0]!, stroke.points.at(-1)!];
      expect(pieces[0]![0]).toEqual([first.x, first.y]);
      expect(pieces.at(-1)!.at(-1)).toEqual([last.x, last.y]);
      const through = new Set(pieces.flat().map(String)).size;
      expect(through).toBe(stroke.points.length + 1);
    }
  });

  it('is the same drawn part by part as its points come, none of which changes what was drawn', () => {
    for (const [seed, stylus, step] of [
      [3, true, 1],
      [4, true, 7],
      [5, false, 3],
    ] as const) {
      const stroke = handwriting(seed, { stylus });
      const { points } = stroke;
      const parts: DisplayPath[] = [];
      let upTo = 0;
      // A part is drawn when there is one more point, and never again.
      for (let count = 3; count < points.length; count += step) {
        const sofar = { ...stroke, points: points.slice(0, count) };
        parts.push(...displayStretch(sofar, upTo, count - 2));
        upTo = count - 2;
      }
      parts.push(...displayStretch(stroke, upTo, points.length - 1));
      const whole = displayStroke(stroke);
      const through = (list: DisplayPath[]): string[] => [
        ...new Set(list.flatMap(places).map(String)),
      ];
      expect(through(parts)).toEqual(through(whole));
      const widest = (list: DisplayPath[]): number => Math.max(...widths(list));
      expect(widest(parts)).toBeCloseTo(widest(whole), 1);
    }
  });

  it('multiplies where it is a highlighter, so that text stays readable', () => {
    const { points } = handwriting(3);
    const style = { tool: 'highlighter', ink: 'lemon', width: 16 } as const;
    expect(displayStroke({ style, points }).map(({ blend }) => blend)).toEqual(['multiply']);
  });

  it('is a dot for a single point, and a line for two', () => {
    const of = (count: number): Stroke => handwriting(4, { count, stylus: false });
    const { x, y } = of(1).points[0]!;
    const dot = [x, y];
    expect(places(displayStroke(of(1))[0]!)).toEqual([dot, dot] as [number, number][]);
    expect(places(displayStroke(of(2))[0]!).length).toBe(2);
  });

  it('is the same before and after the ink was coded, to a fraction of a point', () => {
    const stroke = handwriting(5, { stylus: false });
    const before = displayStroke(stroke).flatMap(places);
    const after = displayStroke(decodeStroke(encodeStroke(stroke))).flatMap(places);
    before.forEach(([x, y], i) => {
      const [u, v] = after[i]!;
      expect(Math.hypot(x - u, y - v)).toBeLessThan(0.05);
    });
  });
});
