import type { Point } from '../geometry/index.js';
import { distance } from '../geometry/index.js';
import { corners, frameMatrix } from './frame.js';
import { transform } from '../geometry/index.js';
import type { MarkSpec, ShapeSpec } from './thing.js';

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

/** A mark as it is written: strokes of a pen, and dots of its width; in parts of its frame. */
interface Written {
  readonly strokes: readonly (readonly [number, number][])[];
  readonly filled?: boolean;
}

const star: [number, number][] = Array.from({ length: 10 }, (_, i) => {
  const angle = (Math.PI * i) / 5 - Math.PI / 2;
  const radius = i % 2 === 0 ? 0.5 : 0.2;
  return [0.5 + radius * Math.cos(angle), 0.53 + radius * Math.sin(angle)];
});
const heart: [number, number][] = Array.from({ length: 48 }, (_, i) => {
  const t = (2 * Math.PI * i) / 48;
  const x = 16 * Math.sin(t) ** 3;
  const y = 13 * Math.cos(t) - 5 * Math.cos(2 * t) - 2 * Math.cos(3 * t) - Math.cos(4 * t);
  return [0.5 + x / 34, 0.46 - y / 34];
});
const hook: [number, number][] = Array.from({ length: 15 }, (_, i) => {
  const angle = Math.PI + (i * Math.PI * 1.35) / 14;
  return [0.5 + 0.26 * Math.cos(angle), 0.32 + 0.24 * Math.sin(angle)];
});

const WRITTEN: Record<MarkSpec['mark'], Written> = {
  tick: {
    strokes: [
      [
        [0.08, 0.56],
        [0.38, 0.88],
        [0.92, 0.12],
      ],
    ],
  },
  cross: {
    strokes: [
      [
        [0.14, 0.14],
        [0.86, 0.86],
      ],
      [
        [0.86, 0.14],
        [0.14, 0.86],
      ],
    ],
  },
  star: { strokes: [star], filled: true },
  question: {
    strokes: [
      [...hook, [0.5, 0.68]],
      [
        [0.5, 0.9],
        [0.5, 0.9],
      ],
    ],
  },
  look: {
    strokes: [
      [
        [0.5, 0.08],
        [0.5, 0.64],
      ],
      [
        [0.5, 0.9],
        [0.5, 0.9],
      ],
    ],
  },
  heart: { strokes: [heart], filled: true },
};

/** Width of the pen that writes a mark, as part of its shorter side. */
const MARK_PEN = 0.13;

/** A mark on the page: runs of points, drawn along by a pen so wide, or filled where it is `null`. */
export function writtenMark({ mark, frame }: MarkSpec): { runs: Point[][]; pen: number | null } {
  const matrix = frameMatrix(frame);
  const { strokes, filled } = WRITTEN[mark];
  return {
    runs: strokes.map((stroke) => stroke.map(([x, y]) => transform(matrix, { x, y }))),
    pen: filled ? null : Math.min(frame.width, frame.height) * MARK_PEN,
  };
}
