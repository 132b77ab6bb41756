import { frameMatrix, transform } from '../../geometry/index.js';
import type { Point } from '../../geometry/index.js';
import type { MarkSpec } from './spec.js';

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
  attention: {
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
