import type { Point } from '../geometry/index.js';
import type { PathBuffer } from './path.js';

/** Goes along a run of points. */
export function polyline(path: PathBuffer, points: readonly Point[], closed: boolean): void {
  points.forEach(({ x, y }, i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  if (closed) path.closePath();
}
