import { drawnOn } from '@cuaderno/core/board';
import type { Item, Page } from '@cuaderno/core/board';
import { itemRenderItems, paint } from '../../board/drawing/render-items';
import { paintPaper } from '../../board/drawing/paper-painter';
import type { Pictures } from '../../board/drawing/pictures';

/**
 * A page as it is on a film. What is new on it is drawn on top; only when something was taken away or changed is all
 * of it drawn anew.
 */
export class PageOnFilm {
  readonly canvas: OffscreenCanvas;
  private readonly context: OffscreenCanvasRenderingContext2D;
  private readonly scale: number;
  private drawn: readonly Item[] | null = null;
  private paper: unknown = null;

  /** @param print what is printed on it, as large as it is shown; `null` for papers of our own */
  constructor(
    { width, height, scale }: { width: number; height: number; scale: number },
    private readonly print: ImageBitmap | null,
    private readonly pictures: Pictures,
  ) {
    this.canvas = new OffscreenCanvas(width, height);
    this.context = this.canvas.getContext('2d')!;
    this.scale = scale;
  }

  /** Brings it up to the page. @param here waits for fonts and pictures of what is about to be drawn */
  async show(page: Page, here: (items: readonly Item[]) => Promise<void>): Promise<void> {
    const items = drawnOn(page);
    const before = page.paper === this.paper ? this.drawn : null;
    const kept =
      before !== null &&
      before.length <= items.length &&
      before.every((item, i) => item === items[i]);
    const fresh = kept ? items.slice(before.length) : items;
    if (fresh.length > 0) await here(fresh);
    if (!kept) this.lay(page);
    for (const item of fresh) this.draw(item);
    this.drawn = items;
    this.paper = page.paper;
  }

  private lay(page: Page): void {
    const { context, canvas } = this;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-over';
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    if (this.print) context.drawImage(this.print, 0, 0, canvas.width, canvas.height);
    paintPaper(canvas, page, { x: 0, y: 0, scale: this.scale });
  }

  private draw(item: Item): void {
    const { context, scale } = this;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    for (const look of itemRenderItems(item)) {
      const multiplies = look.display.kind === 'path' && look.display.blend === 'multiply';
      context.globalCompositeOperation = multiplies ? 'multiply' : 'source-over';
      paint(context, look, this.pictures);
    }
  }
}
