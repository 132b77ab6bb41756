import { transform } from '../geometry/index.js';
import type { Matrix } from '../geometry/index.js';
import { decodeStroke, encodeStroke } from './codec.js';

/** Narrowest and widest that a line may become, in points. */
const MIN_WIDTH = 0.2;
const MAX_WIDTH = 200;

/** A line of ink carried through an affine map; its pen grows as the area does. */
export function transformInk(ink: Uint8Array, map: Matrix): Uint8Array {
  const { style, points } = decodeStroke(ink);
  const growth = Math.sqrt(Math.abs(map[0] * map[3] - map[1] * map[2]));
  const width = Math.min(MAX_WIDTH, Math.max(MIN_WIDTH, style.width * growth));
  return encodeStroke({
    style: { ...style, width: Math.abs(growth - 1) < 1e-6 ? style.width : width },
    points: points.map((p) => ({ ...p, ...transform(map, p) })),
  });
}
