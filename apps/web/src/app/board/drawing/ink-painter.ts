import type { Item } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { frameHiddenItem, isHiddenItem, PALE } from './hidden-item';
import { itemRenderItems, paint } from './render-items';
import type { Pictures } from './pictures';

/** Whether both are the same line, or the same thing: what a confirmation changes isn't seen. */
function looksAlike(a: Item, b: Item | undefined): boolean {
  if (a === b) return true;
  if (!b || a.id !== b.id) return false;
  return a.kind === 'ink' && b.kind === 'ink' && a.ink === b.ink;
}

/**
 * All ink of one sheet as two pictures, one that covers and one that multiplies with what is under
 * it. A new line is drawn on top of them; only when something was erased are they made anew.
 */
export class InkPainter {
  readonly normal: HTMLCanvasElement;
  readonly multiply: HTMLCanvasElement;
  private readonly contexts = new Map<HTMLCanvasElement, CanvasRenderingContext2D>();
  private drawn: Item[] = [];
  /** Whether all fonts and pictures on it have come. */
  private whole = true;
  /** Whether there is anything in `multiply`. */
  multiplies = false;
  /** Whether there is anything in `normal`. */
  covers = false;

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly view: { x: number; y: number; scale: number },
    private readonly pictures: Pictures,
    private readonly settings?: CanvasRenderingContext2DSettings,
  ) {
    this.normal = document.createElement('canvas');
    this.multiply = document.createElement('canvas');
    // Canvases as large as the page are made when there is something to draw on them.
    this.normal.width = 0;
    this.multiply.width = 0;
  }

  /**
   * Brings the pictures up to the sheet.
   * @param all what is on it, in the order of drawing
   * @param lifted items that are drawn elsewhere just now
   * @param enough says when to stop and go on another time
   * @returns whether all is drawn
   */
  show(all: readonly Item[], lifted: ReadonlySet<Id>, enough?: () => boolean): boolean {
    const there = lifted.size > 0 ? all.filter(({ id }) => !lifted.has(id)) : all;
    const late = !this.whole && this.drawn.length === there.length;
    const added = !late && this.drawn.every((item, i) => looksAlike(item, there[i]));
    if (!added) {
      this.clear(this.normal);
      this.clear(this.multiply);
      this.multiplies = this.covers = false;
      this.drawn = [];
      this.whole = true;
    }
    for (const item of there.slice(this.drawn.length)) {
      if (enough?.()) return false;
      const hidden = isHiddenItem(item);
      for (const look of itemRenderItems(item)) {
        const multiplies = look.display.kind === 'path' && look.display.blend === 'multiply';
        const context = this.contextOf(multiplies ? this.multiply : this.normal);
        if (multiplies) this.multiplies = true;
        else this.covers = true;
        if (hidden) context.globalAlpha = PALE;
        if (!paint(context, look, this.pictures)) this.whole = false;
        if (hidden) context.globalAlpha = 1;
      }
      if (hidden) {
        this.covers = true;
        frameHiddenItem(item, this.contextOf(this.normal));
      }
      this.drawn.push(item);
    }
    return true;
  }

  /** To draw in points: asked for once a canvas, as a line costs less than finding out how it is drawn. */
  private contextOf(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
    let context = this.contexts.get(canvas);
    if (context) return context;
    const { x, y, scale } = this.view;
    canvas.width = this.width;
    canvas.height = this.height;
    context = canvas.getContext('2d', this.settings)!;
    context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
    this.contexts.set(canvas, context);
    return context;
  }

  private clear(canvas: HTMLCanvasElement): void {
    const { x, y, scale } = this.view;
    this.contexts.get(canvas)?.clearRect(x, y, canvas.width / scale, canvas.height / scale);
  }
}
