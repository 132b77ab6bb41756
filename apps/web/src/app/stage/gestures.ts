import type { Point } from '@cuaderno/core';

/** What one pointer does on the stage. */
export interface GestureTarget {
  /** Whether a touch or click at this place would write; if not, it moves the page. */
  writes(): boolean;
  /** The pen comes down. Returns false where it can't write there, beside a page say. */
  penDown(sample: Sample): boolean;
  penMove(samples: readonly Sample[]): void;
  penUp(): void;
  /** The pen is taken away in the middle: a second finger came, or the system interfered. */
  penLost(): void;
  pan(dx: number, dy: number): void;
  /** Two fingers: their middle has moved, and their distance has changed by `factor`. */
  pinch(middle: Point, dx: number, dy: number, factor: number): void;
  /** The page was let go while moving, in CSS px a ms. */
  fling(vx: number, vy: number): void;
  /** Anything has come down: what is still gliding stops. */
  touched(): void;
}

/** A pen's place in CSS px from the stage's corner, its pressure, and when (ms). */
export interface Sample {
  readonly x: number;
  readonly y: number;
  readonly pressure: number;
  readonly time: number;
  readonly device: 'pen' | 'touch' | 'mouse';
  /** Whether a key says that this is meant besides what was before. */
  readonly adds: boolean;
}

/** A contact wider than this, in CSS px, is a palm. */
const PALM = 44;
/** Touches this soon after the stylus, in ms, are the hand that holds it. */
const STYLUS_NEAR = 700;
/** A second finger this soon, in ms, means that both were meant to move the page. */
const SECOND_FINGER = 250;

interface Finger {
  x: number;
  y: number;
  at: number;
}

/**
 * Tells writing from moving the page (Pointer Events, level 3). A stylus always writes. Once one
 * was seen, fingers only move the page, and a resting palm does nothing. Without a stylus one
 * finger writes, and two move and zoom.
 */
export class Gestures {
  private readonly fingers = new Map<number, Finger>();
  private pen: { id: number; device: Sample['device']; since: number } | null = null;
  private dragging: { id: number; x: number; y: number } | null = null;
  private velocity = { x: 0, y: 0, at: 0 };
  private stylusSeen = false;
  private stylusAt = -Infinity;
  private readonly listeners = new AbortController();

  constructor(
    private readonly element: HTMLElement,
    private readonly target: GestureTarget,
  ) {
    const on = <K extends keyof HTMLElementEventMap>(
      type: K,
      listener: (event: HTMLElementEventMap[K]) => void,
    ): void => {
      element.addEventListener(type, listener, { signal: this.listeners.signal, passive: false });
    };
    on('pointerdown', (event) => this.down(event));
    on('pointermove', (event) => this.move(event));
    on('pointerup', (event) => this.up(event));
    on('pointercancel', (event) => this.lost(event));
    on('lostpointercapture', (event) => this.lost(event));
    // Long presses and double taps belong to the pen here, not to the browser.
    on('contextmenu', (event) => event.preventDefault());
    on('touchstart', (event) => event.preventDefault());
  }

  /** Whether a stylus has been used: the fingers then only move the page. */
  get hasStylus(): boolean {
    return this.stylusSeen;
  }

  /** Takes the pen away in the middle of a stroke. */
  interrupt(): void {
    if (!this.pen) return;
    this.pen = null;
    this.target.penLost();
  }

  close(): void {
    this.listeners.abort();
  }

  private sample(event: PointerEvent, corner: DOMRect): Sample {
    const device =
      event.pointerType === 'pen' || event.pointerType === 'touch' ? event.pointerType : 'mouse';
    return {
      x: event.clientX - corner.x,
      y: event.clientY - corner.y,
      // A mouse has none, and most fingers report a constant that means nothing.
      pressure: device === 'pen' && event.pressure > 0 ? event.pressure : 0.5,
      time: event.timeStamp,
      device,
      adds: event.shiftKey || event.ctrlKey || event.metaKey,
    };
  }

  private down(event: PointerEvent): void {
    this.target.touched();
    const isPen = event.pointerType === 'pen';
    if (isPen) {
      this.stylusSeen = true;
      this.stylusAt = event.timeStamp;
    }
    if (event.pointerType === 'touch') {
      if (this.isPalm(event)) return;
      this.fingers.set(event.pointerId, {
        x: event.clientX,
        y: event.clientY,
        at: event.timeStamp,
      });
      this.capture(event);
      if (this.fingers.size === 2) return this.secondFinger(event);
      if (this.fingers.size > 2 || this.pen) return;
    }
    const wantsToMove = event.button === 1 || (event.pointerType === 'touch' && this.stylusSeen);
    if (event.button !== 0 && event.button !== 1) return;
    this.capture(event);
    if (!wantsToMove && !this.pen && this.target.writes()) {
      const corner = this.element.getBoundingClientRect();
      const sample = this.sample(event, corner);
      if (this.target.penDown(sample)) {
        this.pen = { id: event.pointerId, device: sample.device, since: event.timeStamp };
        return;
      }
    }
    this.dragging = { id: event.pointerId, x: event.clientX, y: event.clientY };
    this.velocity = { x: 0, y: 0, at: event.timeStamp };
  }

  private move(event: PointerEvent): void {
    if (event.pointerType === 'pen') this.stylusAt = event.timeStamp;
    if (this.pen?.id === event.pointerId) {
      const corner = this.element.getBoundingClientRect();
      const all = event.getCoalescedEvents();
      this.target.penMove((all.length > 0 ? all : [event]).map((e) => this.sample(e, corner)));
      return;
    }
    const finger = this.fingers.get(event.pointerId);
    if (finger && this.fingers.size === 2) return this.pinch(event, finger);
    if (finger) {
      finger.x = event.clientX;
      finger.y = event.clientY;
    }
    if (this.dragging?.id === event.pointerId) {
      const dx = event.clientX - this.dragging.x;
      const dy = event.clientY - this.dragging.y;
      this.dragging.x = event.clientX;
      this.dragging.y = event.clientY;
      const dt = Math.max(1, event.timeStamp - this.velocity.at);
      this.velocity = { x: dx / dt, y: dy / dt, at: event.timeStamp };
      this.target.pan(dx, dy);
    }
  }

  private up(event: PointerEvent): void {
    this.fingers.delete(event.pointerId);
    if (this.pen?.id === event.pointerId) {
      this.pen = null;
      this.target.penUp();
    } else if (this.dragging?.id === event.pointerId) {
      this.dragging = null;
      if (event.pointerType === 'touch' && event.timeStamp - this.velocity.at < 60)
        this.target.fling(this.velocity.x, this.velocity.y);
    }
  }

  private lost(event: PointerEvent): void {
    this.fingers.delete(event.pointerId);
    if (this.dragging?.id === event.pointerId) this.dragging = null;
    if (this.pen?.id === event.pointerId) this.interrupt();
  }

  /** Two fingers move the page, also where the first had begun to write. */
  private secondFinger(event: PointerEvent): void {
    this.dragging = null;
    if (this.pen?.device !== 'touch') return;
    const meant = event.timeStamp - this.pen.since < SECOND_FINGER;
    this.pen = null;
    // What was being written for a while is kept; a twitch is not.
    if (meant) this.target.penLost();
    else this.target.penUp();
  }

  private pinch(event: PointerEvent, finger: Finger): void {
    const other = [...this.fingers.entries()].find(([id]) => id !== event.pointerId)![1];
    const before = Math.hypot(finger.x - other.x, finger.y - other.y);
    const dx = (event.clientX - finger.x) / 2;
    const dy = (event.clientY - finger.y) / 2;
    finger.x = event.clientX;
    finger.y = event.clientY;
    const after = Math.hypot(finger.x - other.x, finger.y - other.y);
    const corner = this.element.getBoundingClientRect();
    const middle = {
      x: (finger.x + other.x) / 2 - corner.x,
      y: (finger.y + other.y) / 2 - corner.y,
    };
    this.target.pinch(middle, dx, dy, before > 20 ? after / before : 1);
  }

  private isPalm(event: PointerEvent): boolean {
    return (
      event.width > PALM ||
      event.height > PALM ||
      this.pen?.device === 'pen' ||
      event.timeStamp - this.stylusAt < STYLUS_NEAR
    );
  }

  private capture(event: PointerEvent): void {
    try {
      this.element.setPointerCapture(event.pointerId);
    } catch {
      // The pointer is gone already; its end has been told, or will be.
    }
  }
}
