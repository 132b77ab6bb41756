import fc from 'fast-check';
import { handwriting } from '../testing/index.js';
import {
  contrast,
  decodePoints,
  decodeStroke,
  encodePoints,
  encodeStroke,
  HIGHLIGHTS,
  InkCodingError,
  INK_STEP,
  INKS,
  thinPoints,
  touches,
} from './index.js';
import type { InkPoint, Stroke } from './index.js';

const points = fc
  .array(
    fc.record({
      x: fc.double({ min: -20_000, max: 20_000, noNaN: true }),
      y: fc.double({ min: -20_000, max: 20_000, noNaN: true }),
      pressure: fc.double({ min: 0, max: 1, noNaN: true }),
      time: fc.nat(5000),
    }),
    { minLength: 1, maxLength: 50 },
  )
  .map((list) => {
    let time = 0;
    return list.map((p) => ({ ...p, time: (time += p.time) }));
  });

const isNear = (a: InkPoint, b: InkPoint) =>
  Math.abs(a.x - b.x) <= INK_STEP.position / 2 &&
  Math.abs(a.y - b.y) <= INK_STEP.position / 2 &&
  Math.abs(a.pressure - b.pressure) <= INK_STEP.pressure / 2 + 1e-9 &&
  a.time === b.time;

describe('ink coding', () => {
  it('gives back every point to within half a step', () => {
    fc.assert(
      fc.property(points, (list) => {
        const back = decodePoints(encodePoints(list));
        return back.length === list.length && back.every((p, i) => isNear(p, list[i]!));
      }),
    );
  });

  it('gives back tool, ink and width', () => {
    for (const { name } of INKS) {
      const stroke = handwriting(1, { width: 21 });
      const style = { tool: 'pen', ink: name, width: 2.4 } as const;
      expect(decodeStroke(encodeStroke({ ...stroke, style })).style).toEqual(style);
    }
    for (const { name } of HIGHLIGHTS) {
      const style = { tool: 'highlighter', ink: name, width: 16 } as const;
      const points = handwriting(2).points;
      expect(decodeStroke(encodeStroke({ style, points })).style).toEqual(style);
    }
  });

  it('coded again, changes no more', () => {
    fc.assert(
      fc.property(points, (list) => {
        const once = encodePoints(list);
        expect(encodePoints(decodePoints(once))).toEqual(once);
      }),
    );
  });

  it('says of any other bytes that they are no ink, and never hangs or crashes', () => {
    const anything = fc.uint8Array({ maxLength: 80 });
    fc.assert(
      fc.property(anything, (bytes) => {
        try {
          return decodeStroke(bytes).points.length > 0;
        } catch (error) {
          return error instanceof InkCodingError;
        }
      }),
      { numRuns: 2000 },
    );
  });

  it('refuses ink cut off or followed by more', () => {
    const bytes = encodeStroke(handwriting(3));
    for (let end = 0; end < bytes.length; end++)
      expect(() => decodeStroke(bytes.subarray(0, end))).toThrowError(InkCodingError);
    expect(() => decodeStroke(Uint8Array.of(...bytes, 0))).toThrowError(InkCodingError);
  });

  it('takes about 3 bytes a point of handwriting', () => {
    let bytes = 0;
    for (let seed = 0; seed < 50; seed++) bytes += encodeStroke(handwriting(seed)).length;
    expect(bytes / (50 * 60)).toBeLessThan(3.6);
  });
});

describe('thinned ink', () => {
  it('has fewer points and still passes within a hair of all that were drawn', () => {
    const { points } = handwriting(7, { count: 200, stylus: false });
    const kept = thinPoints(points, 2.4);
    expect(kept.length).toBeLessThan(points.length * 0.8);
    expect(kept[0]).toEqual(points[0]);
    expect(kept.at(-1)).toEqual(points.at(-1));
  });

  it('keeps a swelling of the line on a straight stretch', () => {
    const straight = [0, 1, 2, 3, 4].map((i) => ({
      x: i,
      y: 0,
      pressure: i === 2 ? 1 : 0.2,
      time: i,
    }));
    expect(thinPoints(straight, 5).some((p) => p.pressure === 1)).toBeTrue();
  });
});

describe('the eraser', () => {
  const stroke: Stroke = {
    style: { tool: 'pen', ink: 'coal', width: 2 },
    points: [0, 50, 100].map((x) => ({ x, y: 10, pressure: 0.5, time: x })),
  };

  it('touches a line it crosses between two samples, and leaves one beside it', () => {
    expect(touches(stroke, { x: 25, y: 0 }, { x: 25, y: 40 }, 1)).toBeTrue();
    expect(touches(stroke, { x: 25, y: 20 }, { x: 80, y: 20 }, 5)).toBeFalse();
    expect(touches(stroke, { x: 25, y: 20 }, { x: 80, y: 20 }, 9.5)).toBeTrue();
  });

  it('touches a dot', () => {
    const dot = { ...stroke, points: [stroke.points[0]!] };
    expect(touches(dot, { x: 1, y: 10 }, { x: 1, y: 10 }, 1)).toBeTrue();
    expect(touches(dot, { x: 9, y: 10 }, { x: 9, y: 10 }, 1)).toBeFalse();
  });
});

describe('contrast (WCAG 2.2, definitions of relative luminance and contrast ratio)', () => {
  it('has the published ends of its scale', () => {
    expect(contrast('#000000', '#ffffff')).toBe(21);
    expect(contrast('#ffffff', '#ffffff')).toBe(1);
  });

  // "Understanding 1.4.3" and its techniques give these greys on white, from memory.
  it('agrees with published greys', () => {
    expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
    expect(contrast('#595959', '#ffffff')).toBeCloseTo(7.0, 1);
  });

  it('is at least 4.5 for every pen ink on white paper', () => {
    for (const { name, colour } of INKS)
      expect(contrast(colour, '#ffffff')).withContext(name).toBeGreaterThan(4.5);
  });

  it('leaves black text readable under every highlighter', () => {
    for (const { name, colour } of HIGHLIGHTS)
      expect(contrast('#22242a', colour)).withContext(name).toBeGreaterThan(7);
  });

  it('gives every ink a letter of its own', () => {
    for (const list of [INKS, HIGHLIGHTS])
      expect(new Set(list.map(({ letter }) => letter)).size).toBe(list.length);
  });
});
