import { decodeStroke, encodeStroke } from '@cuaderno/core/ink';
import type { InkPoint, Stroke } from '@cuaderno/core/ink';
import { handwriting } from '@cuaderno/core/testing';
import { inkRenderItemsOf, paint } from '../drawing/render-items';
import { WetInk } from './wet-ink';

const SIZE = 400;

function canvas(scale: number): CanvasRenderingContext2D {
  const element = document.createElement('canvas');
  element.width = element.height = SIZE;
  const context = element.getContext('2d', { willReadFrequently: true })!;
  context.setTransform(scale, 0, 0, scale, 0, 0);
  return context;
}

function clear(context: CanvasRenderingContext2D): void {
  context.save();
  context.resetTransform();
  context.clearRect(0, 0, SIZE, SIZE);
  context.restore();
}

/** Pixels of which one covers and the other hardly does: soft edges may differ by a shade. */
function unlike(a: CanvasRenderingContext2D, b: CanvasRenderingContext2D): number {
  const [one, other] = [a, b].map((c) => c.getImageData(0, 0, SIZE, SIZE).data);
  let count = 0;
  for (let i = 3; i < one!.length; i += 4) if (Math.abs(one![i]! - other![i]!) > 64) count++;
  return count;
}

function inked(context: CanvasRenderingContext2D): number {
  const { data } = context.getImageData(0, 0, SIZE, SIZE);
  let count = 0;
  for (let i = 3; i < data.length; i += 4) if (data[i]! > 128) count++;
  return count;
}

/** The line as it grows, its list of points the same all the while. */
function* growing(whole: Stroke, by: number): Generator<Stroke> {
  const points: InkPoint[] = [];
  for (let i = 0; i < whole.points.length; i += by) {
    points.push(...whole.points.slice(i, i + by));
    yield { style: whole.style, points };
  }
}

function drawnWhole(stroke: Stroke, scale: number): CanvasRenderingContext2D {
  const context = canvas(scale);
  for (const look of inkRenderItemsOf(encodeStroke(stroke))) paint(context, look);
  return context;
}

describe('lines under way', () => {
  const lines: [string, Stroke][] = [
    ['a stylus that presses', handwriting(1, { count: 90, x: 30, y: 60 })],
    ['a mouse', handwriting(2, { count: 90, x: 30, y: 60, stylus: false })],
    [
      'a highlighter',
      {
        ...handwriting(3, { count: 60, x: 30, y: 60 }),
        style: { tool: 'highlighter', ink: 'lemon', width: 16 },
      },
    ],
  ];
  for (const [what, drawn] of lines) {
    // As it is kept: to a thirty-second of a point.
    const whole = decodeStroke(encodeStroke(drawn));
    for (const scale of [1, 2])
      it(`of ${what} look as they will when they are finished, at ${scale} px a point`, () => {
        const wet = new WetInk();
        const context = canvas(scale);
        for (const soFar of growing(whole, 3)) {
          clear(context);
          wet.draw(context, soFar, scale);
          expect(unlike(context, drawnWhole(soFar, scale))).toBeLessThan(6);
        }
        expect(inked(context)).toBeGreaterThan(100);
      });
  }

  it('cost no more at their end than at their beginning', () => {
    const wet = new WetInk();
    const context = canvas(1);
    const stroke = spyOn(context, 'stroke').and.callThrough();
    let most = 0;
    for (const soFar of growing(handwriting(4, { count: 400, x: 20, y: 60 }), 2)) {
      stroke.calls.reset();
      wet.draw(context, soFar, 1);
      most = Math.max(most, stroke.calls.count());
    }
    expect(most).toBeLessThan(12);
  });

  it('are sharp again after the page was zoomed while they grew', () => {
    const wet = new WetInk();
    const whole = handwriting(5, { count: 80, x: 30, y: 50 });
    const context = canvas(1);
    let n = 0;
    for (const soFar of growing(whole, 4)) {
      const scale = n++ < 10 ? 1 : 2;
      context.setTransform(scale, 0, 0, scale, 0, 0);
      clear(context);
      wet.draw(context, soFar, scale);
    }
    expect(unlike(context, drawnWhole(whole, 2))).toBeLessThan(6);
  });

  it('are drawn also where they are too large for a picture', () => {
    const points = Array.from({ length: 60 }, (_, i) => ({
      x: i * 100,
      y: i % 2 ? 2000 : 20,
      pressure: 0.5,
      time: i * 8,
    }));
    const whole: Stroke = { style: { tool: 'pen', ink: 'midnight', width: 3 }, points };
    const wet = new WetInk();
    const context = canvas(1);
    for (const soFar of growing(whole, 5)) {
      clear(context);
      wet.draw(context, soFar, 1);
    }
    expect(unlike(context, drawnWhole(whole, 1))).toBe(0);
  });
});
