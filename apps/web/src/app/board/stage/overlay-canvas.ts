import type { Size } from './camera';
import { resizeCanvas } from './canvas-size';

/**
 * A canvas over the pages, with nothing on it but what `draw` puts there. A canvas costs every frame that it is
 * part of, empty or not: it is there only while something needs it.
 */
export class OverlayCanvas {
  private readonly canvas = document.createElement('canvas');
  private readonly context = this.canvas.getContext('2d')!;
  private isNeeded = false;
  private frame = 0;

  /**
   * @param container what it fills; lies over what that holds already
   * @param draw draws what it has; the context's units are CSS px
   * @param blend how it mixes with what lies below it (Compositing and Blending Level 1)
   */
  constructor(
    container: HTMLElement,
    private readonly draw: (context: CanvasRenderingContext2D) => void,
    blend: 'normal' | 'multiply' = 'normal',
  ) {
    this.canvas.style.cssText = `position:absolute;left:0;top:0;display:none;mix-blend-mode:${blend}`;
    container.append(this.canvas);
  }

  /** @param size in CSS px */
  resize(size: Size): void {
    if (resizeCanvas(this.canvas, size) && this.isNeeded) this.drawNow();
  }

  /** Draws in the next frame; where nothing is needed of it, it is gone at once. */
  drawSoon(needed: boolean): void {
    if (needed !== this.isNeeded) {
      this.isNeeded = needed;
      this.canvas.style.display = needed ? 'block' : 'none';
    }
    if (needed) this.frame ||= requestAnimationFrame(() => this.drawNow());
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.canvas.remove();
  }

  private drawNow(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    const { canvas, context } = this;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
    context.scale(devicePixelRatio, devicePixelRatio);
    this.draw(context);
  }
}
