import { inkOn } from '@cuaderno/core';
import type { Id, Item, Page } from '@cuaderno/core';
import { itemLooks, paint } from './looks';

const NONE: ReadonlySet<Id> = new Set();

/** Whether both are the same line, or the same thing: what a confirmation changes isn't seen. */
function looksAlike(a: Item, b: Item | undefined): boolean {
  if (a === b) return true;
  if (!b || a.id !== b.id) return false;
  return a.kind === 'ink' && b.kind === 'ink' && a.ink === b.ink;
}

/**
 * All ink of one page as two pictures, one that covers and one that multiplies with what is under
 * it. A new line is drawn on top of them; only when something was erased are they made anew.
 */
export class InkPainter {
  readonly normal: HTMLCanvasElement;
  readonly multiply: HTMLCanvasElement;
  private drawn: Item[] = [];
  /** Whether there is anything in `multiply`. */
  multiplies = false;

  constructor(
    width: number,
    height: number,
    private readonly view: { x: number; y: number; scale: number },
  ) {
    this.normal = document.createElement('canvas');
    this.multiply = document.createElement('canvas');
    for (const canvas of [this.normal, this.multiply]) {
      canvas.width = width;
      canvas.height = height;
    }
  }

  /** Brings the pictures up to the page. @param lifted items that are drawn elsewhere just now */
  show(page: Page, lifted: ReadonlySet<Id> = NONE): void {
    const all = inkOn(page);
    const there = lifted.size > 0 ? all.filter(({ id }) => !lifted.has(id)) : all;
    const added = this.drawn.every((item, i) => looksAlike(item, there[i]));
    if (!added) {
      this.clear(this.normal);
      this.clear(this.multiply);
      this.multiplies = false;
      this.drawn = [];
    }
    for (const item of there.slice(this.drawn.length)) {
      const { x, y, scale } = this.view;
      for (const look of itemLooks(item)) {
        const multiplies = look.display.kind === 'path' && look.display.blend === 'multiply';
        const context = (multiplies ? this.multiply : this.normal).getContext('2d')!;
        context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
        paint(context, look);
        this.multiplies ||= multiplies;
      }
      this.drawn.push(item);
    }
  }

  private clear(canvas: HTMLCanvasElement): void {
    const context = canvas.getContext('2d')!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
  }
}
