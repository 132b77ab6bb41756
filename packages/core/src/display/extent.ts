import { bounds, transform } from '../geometry/index.js';
import type { Matrix, Point, Rect } from '../geometry/index.js';
import type {
  Blend,
  DisplayImage,
  DisplayOutline,
  DisplaySink,
  DisplayText,
} from './display-list.js';
import type { PathBuffer } from './path.js';

/** How far letters reach over their baseline and under it, in parts of their size. */
const OVER = 1.1;
const UNDER = 0.4;

/** Keeps how far what it is given reaches, pens' widths included. Curves count with their control points. */
export class Extent implements DisplaySink {
  private left = Infinity;
  private top = Infinity;
  private right = -Infinity;
  private bottom = -Infinity;

  /** In points; `null` where nothing was drawn since the last time. */
  take(): Rect | null {
    const { left, top, right, bottom } = this;
    this.left = this.top = Infinity;
    this.right = this.bottom = -Infinity;
    return right < left ? null : { x: left, y: top, width: right - left, height: bottom - top };
  }

  path(path: PathBuffer, _colour: string, _blend: Blend, width: number | null): void {
    const { numbers, numberCount } = path;
    const reach = (width ?? 0) / 2;
    for (let i = 0; i < numberCount; i += 2) this.reach(numbers[i]!, numbers[i + 1]!, reach);
  }

  image({ matrix }: DisplayImage): void {
    this.box(matrix, { x: 0, y: 0, width: 1, height: 1 });
  }

  text({ matrix, size, width }: DisplayText): void {
    this.box(matrix, { x: 0, y: -OVER * size, width, height: (OVER + UNDER) * size });
  }

  outline({ path: { numbers }, matrix }: DisplayOutline): void {
    const points: Point[] = [];
    for (let i = 0; i + 1 < numbers.length; i += 2)
      points.push({ x: numbers[i]!, y: numbers[i + 1]! });
    const own = bounds(points);
    if (own) this.box(matrix, own);
  }

  private box(matrix: Matrix, { x, y, width, height }: Rect): void {
    for (const [px, py] of [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const) {
      const at = transform(matrix, { x: px, y: py });
      this.reach(at.x, at.y, 0);
    }
  }

  private reach(x: number, y: number, by: number): void {
    if (x - by < this.left) this.left = x - by;
    if (x + by > this.right) this.right = x + by;
    if (y - by < this.top) this.top = y - by;
    if (y + by > this.bottom) this.bottom = y + by;
  }
}
