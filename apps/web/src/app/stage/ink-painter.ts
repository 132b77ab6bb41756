import { decodeStroke, displayStroke, trace } from '@cuaderno/core';
import type { DisplayPath, Id, Item, Page, Stroke } from '@cuaderno/core';

/** What has been made of an item before: items never change, so it never needs to be made again. */
const strokes = new WeakMap<Uint8Array, Stroke>();
const looks = new WeakMap<Uint8Array, Look[]>();

/** A path of a display list, as the canvas takes it. */
export interface Look {
  readonly display: DisplayPath;
  readonly path: Path2D;
}

export function strokeOf(item: Item): Stroke {
  let stroke = strokes.get(item.ink);
  if (!stroke) strokes.set(item.ink, (stroke = decodeStroke(item.ink)));
  return stroke;
}

export function lookOf(display: DisplayPath): Look {
  const path = new Path2D();
  trace(display.path, path);
  return { display, path };
}

export function looksOf(stroke: Stroke): Look[] {
  return displayStroke(stroke).map(lookOf);
}

function itemLooks(item: Item): Look[] {
  let look = looks.get(item.ink);
  if (!look) looks.set(item.ink, (look = looksOf(strokeOf(item))));
  return look;
}

/** Draws one path of a display list; the context's units are points. */
export function paint(
  context: CanvasRenderingContext2D,
  { display: { colour, paint: how }, path }: Look,
): void {
  if (how === 'fill') {
    context.fillStyle = colour;
    context.fill(path);
  } else {
    context.strokeStyle = colour;
    context.lineWidth = how.width;
    context.lineCap = 'round';
    context.lineJoin = 'round';
    context.stroke(path);
  }
}

/**
 * All ink of one page as two pictures, one that covers and one that multiplies with what is under
 * it. A new line is drawn on top of them; only when something was erased are they made anew.
 */
export class InkPainter {
  readonly normal: HTMLCanvasElement;
  readonly multiply: HTMLCanvasElement;
  private drawn: Id[] = [];
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

  /** Brings the pictures up to the page. */
  show(page: Page): void {
    const there = [...page.items.values()].filter((item) => !item.removed);
    const added = this.drawn.every((id, i) => there[i]?.id === id);
    if (!added) {
      this.clear(this.normal);
      this.clear(this.multiply);
      this.multiplies = false;
      this.drawn = [];
    }
    for (const item of there.slice(this.drawn.length)) {
      const { x, y, scale } = this.view;
      for (const look of itemLooks(item)) {
        const multiplies = look.display.blend === 'multiply';
        const context = (multiplies ? this.multiply : this.normal).getContext('2d')!;
        context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
        paint(context, look);
        this.multiplies ||= multiplies;
      }
      this.drawn.push(item.id);
    }
  }

  private clear(canvas: HTMLCanvasElement): void {
    const context = canvas.getContext('2d')!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, canvas.width, canvas.height);
  }
}
