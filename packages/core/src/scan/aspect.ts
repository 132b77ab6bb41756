import type { Point } from '../geometry/index.js';
import type { Quad } from './homography.js';

type Vector = readonly [number, number, number];

/** So little foreshortening is as much as corners are found wrong: none is reckoned with. */
const FLAT = 0.03;
/** Focal lengths that cameras have, against the longer side of the picture. */
const LENSES = [0.4, 6] as const;

/**
 * Width to height of a sheet whose corners are seen so on a photograph, the camera's axis going
 * through its middle: Zhang and He, Whiteboard scanning and image enhancement, Digital Signal
 * Processing 17(2), 2007, section 3. `null` where no camera would see it so.
 */
export function aspectOf(corners: Quad, width: number, height: number): number | null {
  const seen = ({ x, y }: Point): Vector => [x - width / 2, y - height / 2, 1];
  const [m1, m2, m4, m3] = corners.map(seen) as [Vector, Vector, Vector, Vector];
  const k2 = dot(cross(m1, m4), m3) / dot(cross(m2, m4), m3);
  const k3 = dot(cross(m1, m4), m2) / dot(cross(m3, m4), m2);
  const n2 = minus(m2, k2, m1);
  const n3 = minus(m3, k3, m1);
  const across = n2[0] ** 2 + n2[1] ** 2;
  const down = n3[0] ** 2 + n3[1] ** 2;
  let ratio = across / down;
  if (Math.abs(n2[2]) > FLAT && Math.abs(n3[2]) > FLAT) {
    const focal = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
    const side = Math.max(width, height);
    if (!(focal > (LENSES[0] * side) ** 2 && focal < (LENSES[1] * side) ** 2)) return null;
    ratio = (across / focal + n2[2] ** 2) / (down / focal + n3[2] ** 2);
  } else if (Math.max(Math.abs(n2[2]), Math.abs(n3[2])) > FLAT) {
    // Foreshortened one way only: how much, no corner tells. A usual lens is taken.
    const focal = Math.max(width, height) ** 2;
    ratio = (across / focal + n2[2] ** 2) / (down / focal + n3[2] ** 2);
  }
  return ratio > 0 && Number.isFinite(ratio) ? Math.sqrt(ratio) : null;
}

function cross(a: Vector, b: Vector): Vector {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

function dot(a: Vector, b: Vector): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

/** `k` times `a`, less `b`. */
function minus(a: Vector, k: number, b: Vector): Vector {
  return [k * a[0] - b[0], k * a[1] - b[1], k * a[2] - b[2]];
}
