import { decodeStroke, encodeStroke } from '../ink/index.js';
import { handwriting } from '../testing/index.js';
import { displayStroke, trace } from './index.js';
import type { DisplayPath, PathSink } from './index.js';

/** Every place a path goes through or bends towards. */
function places({ path }: DisplayPath): [number, number][] {
  const out: [number, number][] = [];
  const sink: PathSink = {
    moveTo: (x, y) => void out.push([x, y]),
    lineTo: (x, y) => void out.push([x, y]),
    quadraticCurveTo: (cx, cy, x, y) => void out.push([cx, cy], [x, y]),
    closePath: () => undefined,
  };
  trace(path, sink);
  return out;
}

describe('what a stroke looks like', () => {
  it('is a line of the pen’s width where there was no pressure', () => {
    const item = displayStroke(handwriting(1, { stylus: false, width: 5 }));
    expect(item.paint).toEqual({ width: 5 });
    expect(item.blend).toBe('normal');
  });

  it('is a filled outline, no wider than the pen swells, where there was', () => {
    const stroke = handwriting(2, { width: 5 });
    const item = displayStroke(stroke);
    expect(item.paint).toBe('fill');
    for (const [x, y] of places(item)) {
      const nearest = Math.min(...stroke.points.map((p) => Math.hypot(p.x - x, p.y - y)));
      expect(nearest).toBeLessThan(5);
    }
  });

  it('multiplies where it is a highlighter, so that text stays readable', () => {
    const { points } = handwriting(3);
    const style = { tool: 'highlighter', ink: 'lemon', width: 16 } as const;
    expect(displayStroke({ style, points }).blend).toBe('multiply');
  });

  it('is a dot for a single point', () => {
    const stroke = handwriting(4, { count: 1, stylus: false });
    const { x, y } = stroke.points[0]!;
    expect(places(displayStroke(stroke))).toEqual([
      [Math.fround(x), Math.fround(y)],
      [Math.fround(x), Math.fround(y)],
    ]);
  });

  it('is the same before and after the ink was coded, to a fraction of a point', () => {
    const stroke = handwriting(5);
    const before = places(displayStroke(stroke));
    const after = places(displayStroke(decodeStroke(encodeStroke(stroke))));
    const ends = (list: [number, number][]) => [list[0]!, list.at(-1)!];
    ends(before).forEach(([x, y], i) => {
      const [u, v] = ends(after)[i]!;
      expect(Math.hypot(x - u, y - v)).toBeLessThan(0.1);
    });
  });

  it('can be traced through a map', () => {
    const out: number[] = [];
    const item = displayStroke(handwriting(6, { count: 2, stylus: false, x: 0, y: 0 }));
    const sink = { moveTo: (x: number, y: number) => out.push(x, y) } as unknown as PathSink;
    sink.lineTo = sink.quadraticCurveTo = () => undefined;
    trace(item.path, sink, [2, 0, 0, -2, 10, 20]);
    expect(out[0]).toBeCloseTo(item.path.numbers[0]! * 2 + 10, 4);
    expect(out[1]).toBeCloseTo(item.path.numbers[1]! * -2 + 20, 4);
  });
});
