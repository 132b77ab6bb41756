import type { Point } from '@cuaderno/core/geometry';
import type { Command } from '../shortcuts/table';
import { ZOOM_STEP } from './camera';

/** What keys and wheels move. Distances in CSS px. */
export interface Steered {
  pan(dx: number, dy: number): void;
  /** @param factor above 1 zooms in; around a place in the window, or its middle */
  zoomBy(factor: number, around?: Point): void;
  /** Goes so many pages on or back. */
  turn(by: number): void;
  toStart(): void;
  toEnd(): void;
  fitWidth(): void;
  fitPage(): void;
  height(): number;
  /** Whether arrow keys mean what is chosen, and not the page. */
  keepsArrows(): boolean;
  /** Whether it is the key for something. */
  asks(event: KeyboardEvent, command: Command): boolean;
}

/** How far an arrow key moves the page, in CSS px. */
const STEP = 60;
/** Which way the page goes: the other than what is seen of it. */
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowLeft: [1, 0],
  ArrowRight: [-1, 0],
};
/** Slowing of a page that was let go while moving, per ms. */
const FRICTION = 0.996;

/** Moves the page by wheel and keys, and lets it glide where it was let go while moving. */
export class Steering {
  private glide = 0;

  constructor(
    private readonly element: HTMLElement,
    private readonly to: Steered,
  ) {
    element.addEventListener('wheel', (event) => this.wheel(event), { passive: false });
    element.addEventListener('keydown', (event) => this.key(event));
  }

  /** @param vx speed in CSS px a ms */
  fling(vx: number, vy: number): void {
    let last = performance.now();
    const step = (now: number): void => {
      const dt = now - last;
      last = now;
      this.to.pan(vx * dt, vy * dt);
      const slower = FRICTION ** dt;
      vx *= slower;
      vy *= slower;
      if (Math.hypot(vx, vy) > 0.02) this.glide = requestAnimationFrame(step);
    };
    this.glide = requestAnimationFrame(step);
  }

  stop(): void {
    cancelAnimationFrame(this.glide);
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const unit = event.deltaMode === 1 ? 20 : event.deltaMode === 2 ? this.to.height() : 1;
    const dx = event.deltaX * unit;
    const dy = event.deltaY * unit;
    if (event.ctrlKey || event.metaKey) {
      const corner = this.element.getBoundingClientRect();
      const at = { x: event.clientX - corner.x, y: event.clientY - corner.y };
      this.to.zoomBy(Math.exp(-dy * 0.0022), at);
    } else if (event.shiftKey && dx === 0) this.to.pan(-dy, 0);
    else this.to.pan(-dx, -dy);
  }

  private key(event: KeyboardEvent): void {
    const { to } = this;
    const moves: readonly [Command, () => void][] = [
      ['pan', () => this.pan(event.key)],
      ['page-before', () => to.turn(-1)],
      ['page-after', () => to.turn(1)],
      ['page-start', () => to.toStart()],
      ['page-end', () => to.toEnd()],
      ['zoom-in', () => to.zoomBy(ZOOM_STEP)],
      ['zoom-out', () => to.zoomBy(1 / ZOOM_STEP)],
      ['fit-width', () => to.fitWidth()],
      ['fit-page', () => to.fitPage()],
    ];
    const [command, move] = moves.find(([name]) => to.asks(event, name)) ?? [];
    if (!move || (command === 'pan' && to.keepsArrows())) return;
    event.preventDefault();
    move();
  }

  private pan(arrow: string): void {
    const [across, down] = ARROWS[arrow] ?? [0, 0];
    this.to.pan(across * STEP, down * STEP);
  }
}
