import type { Point } from '../geometry/index.js';

/** Four corners, from the top left clockwise. */
export type Quad = readonly [Point, Point, Point, Point];

/** A map of one plane onto another as a lens sees it: nine numbers, row by row, the last being 1. */
export type Homography = readonly number[];

/**
 * The map that takes four corners to four others, by the direct linear transform: Hartley and
 * Zisserman, Multiple View Geometry, 4.1. `null` where three of the corners lie on a line.
 */
export function homography(from: Quad, to: Quad): Homography | null {
  const rows: number[][] = [];
  for (let i = 0; i < 4; i++) {
    const [{ x, y }, { x: u, y: v }] = [from[i]!, to[i]!];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  }
  const solved = solve(rows);
  return solved && [...solved, 1];
}

export function mapped([a, b, c, d, e, f, g, h]: Homography, { x, y }: Point): Point {
  const w = g! * x + h! * y + 1;
  return { x: (a! * x + b! * y + c!) / w, y: (d! * x + e! * y + f!) / w };
}

/** Gauss with pivots; rows have their right side at the end. */
function solve(rows: number[][]): number[] | null {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++)
      if (Math.abs(rows[r]![i]!) > Math.abs(rows[pivot]![i]!)) pivot = r;
    [rows[i], rows[pivot]] = [rows[pivot]!, rows[i]!];
    const head = rows[i]![i]!;
    if (Math.abs(head) < 1e-9) return null;
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const factor = rows[r]![i]! / head;
      if (factor !== 0)
        for (let c = i; c <= n; c++) rows[r]![c] = rows[r]![c]! - factor * rows[i]![c]!;
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!);
}
