import type { Matrix, PdfRect, Point, Rect } from '@cuaderno/core';
import { round } from './annotation.js';

export function flat(points: readonly Point[]): number[] {
  return points.flatMap(({ x, y }) => [x, y]);
}

/** The same run in the PDF's user space, rounded as it is written. */
export function mapped(run: readonly number[], [a, b, c, d, e, f]: Matrix): number[] {
  const out: number[] = [];
  for (let i = 0; i < run.length; i += 2) {
    const [x, y] = [run[i]!, run[i + 1]!];
    out.push(round(a * x + c * y + e), round(b * x + d * y + f));
  }
  return out;
}

export function rectOf({ x, y, width, height }: Rect, map: Matrix): PdfRect {
  const [ax, ay, bx, by] = mapped([x, y, x + width, y + height], map) as [
    number,
    number,
    number,
    number,
  ];
  return [Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by)];
}

/** Units of user space in a point. */
export function scaleOf([a, b]: Matrix): number {
  return Math.hypot(a, b);
}
