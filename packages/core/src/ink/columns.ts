import type { InkPoint } from './stroke.js';

/**
 * The points of one stroke in columns, units as in `InkPoint`. A page of ink is drawn by filling
 * the same columns for every stroke of it, so that no object is made for any point.
 */
export class InkColumns {
  count = 0;
  x = new Float64Array(256);
  y = new Float64Array(256);
  pressure = new Float64Array(256);
  time = new Float64Array(256);

  /** Makes room for `count` points; what was there before is no longer of use. */
  reset(count: number): void {
    this.count = count;
    if (count <= this.x.length) return;
    const length = Math.max(count, this.x.length * 2);
    this.x = new Float64Array(length);
    this.y = new Float64Array(length);
    this.pressure = new Float64Array(length);
    this.time = new Float64Array(length);
  }

  /** Takes the place of what was there. */
  fill(points: readonly InkPoint[]): this {
    this.reset(points.length);
    for (let i = 0; i < points.length; i++) {
      const p = points[i]!;
      this.x[i] = p.x;
      this.y[i] = p.y;
      this.pressure[i] = p.pressure;
      this.time[i] = p.time;
    }
    return this;
  }

  points(): InkPoint[] {
    const list: InkPoint[] = [];
    for (let i = 0; i < this.count; i++)
      list.push({
        x: this.x[i]!,
        y: this.y[i]!,
        pressure: this.pressure[i]!,
        time: this.time[i]!,
      });
    return list;
  }
}
