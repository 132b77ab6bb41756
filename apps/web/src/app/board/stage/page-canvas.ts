import type { Size } from './camera';
import { resizeCanvas } from './canvas-size';

/**
 * The canvas of the pages and the desk that they lie on. Nothing shows through it, so whatever is under it
 * isn't laid together again in each frame in which a pen moves: half of the work of a machine without a
 * graphics card.
 */
export class PageCanvas {
  private readonly canvas = document.createElement('canvas');
  private readonly context = this.canvas.getContext('2d', { alpha: false })!;
  private readonly dark = matchMedia('(prefers-color-scheme: dark)');
  private readonly colourChanged = (): void => {
    this.colour = '';
    this.drawSoon();
  };
  private colour = '';
  private frame = 0;

  /**
   * @param container what it fills; the colour of the desk is that of its ground
   * @param draw draws the pages; the context's units are CSS px
   */
  constructor(
    private readonly container: HTMLElement,
    private readonly draw: (context: CanvasRenderingContext2D) => void,
  ) {
    this.canvas.style.cssText = 'position:absolute;left:0;top:0;display:block';
    container.prepend(this.canvas);
    this.dark.addEventListener('change', this.colourChanged);
  }

  /** @param size in CSS px */
  resize(size: Size): void {
    // A canvas of a new size is black until it is drawn.
    if (resizeCanvas(this.canvas, size)) this.drawNow();
  }

  /** Draws in the next frame. */
  drawSoon(): void {
    this.frame ||= requestAnimationFrame(() => this.drawNow());
  }

  close(): void {
    cancelAnimationFrame(this.frame);
    this.dark.removeEventListener('change', this.colourChanged);
    this.canvas.remove();
  }

  private drawNow(): void {
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    const { canvas, context } = this;
    this.colour ||= getComputedStyle(this.container).backgroundColor;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillStyle = this.colour;
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.scale(devicePixelRatio, devicePixelRatio);
    this.draw(context);
  }
}
