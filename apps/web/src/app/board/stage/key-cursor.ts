import { computed, signal } from '@angular/core';
import type { Point } from '@cuaderno/core/geometry';
import type { Tool } from '../tool/tool';
import type { Sample } from './gestures';

/** How far a key moves the cursor, in CSS px: by itself, with Shift, and with Alt. */
const STEP = 10;
const FAR = 60;
const NEAR = 1;
/** How near to the window’s edge the cursor may come before the page moves instead, in CSS px. */
const EDGE = 40;
/** How hard the keys press: as a mouse does (Pointer Events, 4.1.1). */
const PRESSURE = 0.5;

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Tools that do what they do at one place; the others are put down, drawn along, and taken up. */
const AT_ONCE: readonly Tool[] = ['text', 'slip', 'formula', 'mark', 'select'];

/** What the cursor works on. */
export interface KeyCursorTarget {
  tool(): Tool;
  /** Whether anything can be done with what is in hand. */
  writes(): boolean;
  size(): { readonly width: number; readonly height: number };
  /** Whether arrow keys mean what is chosen. */
  keepsArrows(): boolean;
  pan(dx: number, dy: number): void;
  penDown(sample: Sample): boolean;
  penMove(samples: readonly Sample[]): void;
  penUp(): void;
  penLost(): void;
  /** Where it is on a page, in parts of its width and height; `null` beside all pages. */
  partOf(at: Point): Point | null;
  /** What lies there, in words; empty where nothing does. */
  under(at: Point): string;
}

/**
 * What a pointer does, by keys: Enter brings a cursor, arrows move it, Enter puts down what is in hand or takes it up,
 * Escape puts the cursor away. Nobody needs a mouse to write (WCAG 2.2, 2.1.1).
 */
export class KeyCursor {
  /** Where it is, in CSS px from the stage's corner, and whether it is down; `null` where it isn't shown. */
  readonly shown = signal<{ readonly at: Point; readonly down: boolean } | null>(null);
  /** Where that is on its page, for who can't see it. */
  readonly words = computed(() => {
    const cursor = this.shown();
    if (!cursor) return '';
    const part = this.to.partOf(cursor.at);
    if (!part) return 'Beside the page';
    const percent = (n: number): number => Math.round(100 * n);
    const under = this.to.under(cursor.at);
    return `${cursor.down ? 'Down, ' : ''}${percent(part.x)} % across, ${percent(part.y)} % down the page${under && `. ${under}`}`;
  });
  private at: Point | null = null;
  private down = false;

  constructor(private readonly to: KeyCursorTarget) {}

  listen(element: HTMLElement): void {
    element.addEventListener('keydown', (event) => this.key(event));
    element.addEventListener('blur', () => this.rest());
    element.addEventListener('pointerdown', () => this.rest());
  }

  /** Whether arrow keys move it, and not the page. */
  get takesArrows(): boolean {
    return this.at !== null && !this.to.keepsArrows();
  }

  /** Puts it away; what was begun is given up. */
  rest(): void {
    if (this.down) this.to.penLost();
    this.down = false;
    if (this.at) this.show(null);
  }

  /** Another tool is in hand. */
  toolChanged(): void {
    if (this.down) this.to.penLost();
    this.down = false;
    if (this.at && (this.to.tool() === 'hand' || !this.to.writes())) this.rest();
    else if (this.at) this.show(this.at);
  }

  private key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.isComposing) return;
    if (this.handle(event)) {
      event.preventDefault();
      event.stopPropagation();
    }
  }

  private handle(event: KeyboardEvent): boolean {
    const { key } = event;
    // Of what is chosen, Enter opens what is written there.
    if (key === 'Enter') return !this.to.keepsArrows() && this.press();
    if (!this.at) return false;
    if (key === 'Escape') {
      if (this.to.keepsArrows()) return false;
      this.rest();
      return true;
    }
    const way = WAYS[key];
    if (!way || this.to.keepsArrows()) return false;
    const step = event.shiftKey ? FAR : event.altKey ? NEAR : STEP;
    this.move(way[0] * step, way[1] * step);
    return true;
  }

  private press(): boolean {
    if (this.to.tool() === 'hand' || !this.to.writes()) return false;
    const { width, height } = this.to.size();
    if (!this.at) {
      this.show({ x: Math.round(width / 2), y: Math.round(height / 2) });
      return true;
    }
    if (this.down) {
      this.to.penUp();
      this.down = false;
    } else {
      const taken = this.to.penDown(this.sample(this.at));
      this.down = taken && !AT_ONCE.includes(this.to.tool());
      if (taken && !this.down) this.to.penUp();
    }
    this.show(this.at);
    return true;
  }

  private move(dx: number, dy: number): void {
    const { width, height } = this.to.size();
    const wished = { x: this.at!.x + dx, y: this.at!.y + dy };
    const edge = Math.min(EDGE, width / 4, height / 4);
    const at = {
      x: Math.min(width - edge, Math.max(edge, wished.x)),
      y: Math.min(height - edge, Math.max(edge, wished.y)),
    };
    // While something is drawn the page stays where it is under it.
    if (!this.down) this.to.pan(at.x - wished.x, at.y - wished.y);
    else this.to.penMove([this.sample(at)]);
    this.show(at);
  }

  private show(at: Point | null): void {
    this.at = at;
    this.shown.set(at && { at, down: this.down });
  }

  private sample({ x, y }: Point): Sample {
    const time = performance.now();
    return { x, y, pressure: PRESSURE, time, device: 'mouse', adds: false };
  }
}
