import { corners, distance, frameMatrix, transform } from '../../geometry/index.js';
import type { Point } from '../../geometry/index.js';
import type { ShapeSpec } from './spec.js';

/** Pieces in which an ellipse is walked: a hundredth of a point off on a circle as large as a page. */
const PIECES = 128;

/** The outline of a shape on the page, as a run of points; and whether it comes back to its start. */
export function outlineOf(shape: ShapeSpec): { points: Point[]; closed: boolean } {
  const matrix = frameMatrix(shape.frame);
  const at = ([x, y]: readonly [number, number]): Point => transform(matrix, { x, y });
  switch (shape.shape) {
    case 'line':
      return {
        points: (
          shape.points ?? [
            [0, 0],
            [1, 1],
          ]
        ).map(at),
        closed: false,
      };
    case 'polygon':
      return {
        points: (
          shape.points ?? [
            [0, 0],
            [1, 0],
            [1, 1],
          ]
        ).map(at),
        closed: true,
      };
    case 'triangle':
      return {
        points: (
          [
            [0.5, 0],
            [1, 1],
            [0, 1],
          ] as [number, number][]
        ).map(at),
        closed: true,
      };
    case 'box':
      return { points: corners(shape.frame), closed: true };
    case 'ellipse':
      return {
        points: Array.from({ length: PIECES }, (_, i) => {
          const angle = (2 * Math.PI * i) / PIECES;
          return at([0.5 + Math.cos(angle) / 2, 0.5 + Math.sin(angle) / 2]);
        }),
        closed: true,
      };
  }
}

/** Length and half the breadth of an arrow's head on a line of this width, in points. */
export function headSize(width: number): { length: number; half: number } {
  const length = 6 + 3 * width;
  return { length, half: length * 0.42 };
}

/** Cuts a run of points into dashes, three widths long and two and a half apart. */
export function dashes(points: readonly Point[], closed: boolean, width: number): Point[][] {
  const [on, off] = [3 * width + 1, 2.5 * width + 1.5];
  const run = closed ? [...points, points[0]!] : points;
  const pieces: Point[][] = [];
  let piece: Point[] | null = [run[0]!];
  let left = on;
  for (let i = 1; i < run.length; i++) {
    let from = run[i - 1]!;
    const to = run[i]!;
    for (let rest = distance(from, to); rest > left; rest = distance(from, to)) {
      const t = left / rest;
      from = { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
      if (piece) pieces.push([...piece, from]);
      piece = piece ? null : [from];
      left = piece ? on : off;
    }
    left -= distance(from, to);
    piece?.push(to);
  }
  if (piece && piece.length > 1) pieces.push(piece);
  return pieces;
}
