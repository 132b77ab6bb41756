import type { Point } from '@cuaderno/core/geometry';
import { MAX_ZOOM } from './camera';
import type { Camera, Size } from './camera';

/** How many times as large as the lead has it one may have it. */
const MOST = 6;

/**
 * A student's own zoom within what the lead shows: in step, one sees no other part of the board, but may have a part of it
 * larger. It goes along when the lead moves on, and is told relative to what that shows.
 */
export class OwnZoom {
  /** How much larger than the lead has it; 1 where one sees what the lead sees. */
  private factor = 1;
  /** Which part: 0 is at the left and top edge of what the lead shows, 1 at the right and bottom. */
  private u = 0.5;
  private v = 0.5;

  get isOn(): boolean {
    return this.factor > 1;
  }

  reset(): void {
    this.factor = 1;
    this.u = this.v = 0.5;
  }

  /** What is shown of what the lead shows. */
  within(base: Camera, { width, height }: Size): Camera {
    const factor = Math.min(this.factor, Math.max(1, MAX_ZOOM / base.zoom));
    const room = (pixels: number): number => (pixels / base.zoom) * (1 - 1 / factor);
    return {
      x: base.x + this.u * room(width),
      y: base.y + this.v * room(height),
      zoom: base.zoom * factor,
    };
  }

  /** Makes it larger or smaller by `factor`, so that the place under `at` (CSS px in the window) stays where it is. */
  zoom(base: Camera, size: Size, factor: number, at: Point): void {
    const before = this.within(base, size);
    const place = { x: before.x + at.x / before.zoom, y: before.y + at.y / before.zoom };
    this.factor = Math.min(MOST, Math.max(1, this.factor * factor));
    if (!this.isOn) return this.reset();
    const { zoom } = this.within(base, size);
    this.put(base, size, { x: place.x - at.x / zoom, y: place.y - at.y / zoom });
  }

  /** @param dx how far the board is moved, in CSS px */
  pan(base: Camera, size: Size, dx: number, dy: number): void {
    const { x, y, zoom } = this.within(base, size);
    this.put(base, size, { x: x - dx / zoom, y: y - dy / zoom });
  }

  /** Brings the corner of what is shown to a place of the board, as far as that lies within what the lead shows. */
  private put(base: Camera, { width, height }: Size, corner: Point): void {
    const part = (from: number, pixels: number, at: number): number => {
      const room = (pixels / base.zoom) * (1 - 1 / this.factor);
      return room <= 0 ? 0.5 : Math.min(1, Math.max(0, (at - from) / room));
    };
    this.u = part(base.x, width, corner.x);
    this.v = part(base.y, height, corner.y);
  }
}
