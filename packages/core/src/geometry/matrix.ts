import type { Point } from './point.js';

/**
 * An affine map, in the order ISO 32000-1, 8.3.3 and the canvas share:
 * `x' = a·x + c·y + e`, `y' = b·x + d·y + f`.
 */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export function transform(m: Matrix, p: Point): Point {
  return { x: m[0] * p.x + m[2] * p.y + m[4], y: m[1] * p.x + m[3] * p.y + m[5] };
}

/** The map that does `first`, then `then`. */
export function compose(first: Matrix, then: Matrix): Matrix {
  const [a, b, c, d, e, f] = first;
  const [A, B, C, D, E, F] = then;
  return [
    A * a + C * b,
    B * a + D * b,
    A * c + C * d,
    B * c + D * d,
    A * e + C * f + E,
    B * e + D * f + F,
  ];
}

/** The map back. Throws `RangeError` for a map that flattens the plane. */
export function inverse(m: Matrix): Matrix {
  const [a, b, c, d, e, f] = m;
  const det = a * d - b * c;
  if (det === 0) throw new RangeError('This map has no way back.');
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}
