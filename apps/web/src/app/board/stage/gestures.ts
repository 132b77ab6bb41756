import type { Point } from '@cuaderno/core/geometry';
import type { FingerUse } from './finger-use';

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
  /** A pen has come, or has been away for a while: told when that changes. */
  penInUse(inUse: boolean): void;
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

/**
 * A contact wider or higher than this, in CSS px, is a palm while a pen is in use. Without one it is a large finger:
 * 44 px are 12 mm, which a thumb laid flat has, too.
 */
const PALM = 44;
/** Touches this soon after the pen was there, in ms, are the hand that holds it. */
const PEN_NEAR = 700;
/** How long after a pen was there last fingers write again, in ms. */
const PEN_AWAY = 8000;
/** A touch that began to write this soon before the pen came down, in ms, was the hand that holds it. */
const HAND_FIRST = 1500;
/** How far from where a pen was reported last it is lifted, in CSS px, for that to be part of the line. */
const END = 2;
/** A second finger this soon, in ms, means that both were meant to move the page. */
const SECOND_FINGER = 250;

/** What a move stands for: more places than one, where the browser tells (not on plain http, nor in older engines). */
function allOf(event: PointerEvent): readonly PointerEvent[] {
  const all = event.getCoalescedEvents?.() ?? [];
  return all.length > 0 ? all : [event];
}

interface Finger {
  x: number;
  y: number;
  at: number;
}

/**
 * Tells writing from moving the page (Pointer Events, level 3). A pen always writes. While it is in use fingers move the
 * page, and the hand that holds it does nothing, whether it comes down before the pen or after. When the pen has been
 * away for a while, and where there is none, one finger writes, however large; two move and zoom.
 */
export class Gestures {
  /** What one finger does. */
  fingerUse: FingerUse = 'auto';
  private readonly fingers = new Map<number, Finger>();
  private pen: { id: number; device: Sample['device']; since: number; last: Sample } | null = null;
  private dragging: { id: number; x: number; y: number } | null = null;
  private velocity = { x: 0, y: 0, at: 0 };
  /** When a pen was there last, in ms as of events. */
  private penAt = -Infinity;
  private isPenInUse = false;
  private away: ReturnType<typeof setTimeout> | undefined;
  private readonly listeners = new AbortController();

  constructor(
    private readonly element: HTMLElement,
    private readonly target: GestureTarget,
    /** The time that events go by, in ms. */
    private readonly now: () => number = () => performance.now(),
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

  /** Takes the pen away in the middle of a stroke. */
  interrupt(): void {
    if (!this.pen) return;
    this.pen = null;
    this.target.penLost();
  }

  close(): void {
    this.listeners.abort();
    clearTimeout(this.away);
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
    if (event.pointerType === 'pen') {
      this.penIsThere(event);
      this.handWasFirst(event);
    }
    if (event.pointerType === 'touch') {
      if (this.isHand(event)) return;
      this.fingers.set(event.pointerId, {
        x: event.clientX,
        y: event.clientY,
        at: event.timeStamp,
      });
      this.capture(event);
      if (this.fingers.size === 2) return this.secondFinger(event);
      if (this.fingers.size > 2 || this.pen) return;
    }
    const wantsToMove = event.button === 1 || (event.pointerType === 'touch' && !this.fingerWrites);
    if (event.button !== 0 && event.button !== 1) return;
    this.capture(event);
    if (!wantsToMove && !this.pen && this.target.writes()) {
      const corner = this.element.getBoundingClientRect();
      const sample = this.sample(event, corner);
      if (this.target.penDown(sample)) {
        const { pointerId: id, timeStamp: since } = event;
        this.pen = { id, device: sample.device, since, last: sample };
        return;
      }
    }
    this.dragging = { id: event.pointerId, x: event.clientX, y: event.clientY };
    this.velocity = { x: 0, y: 0, at: event.timeStamp };
  }

  private move(event: PointerEvent): void {
    // Also where it only hovers: the hand is about to come down.
    if (event.pointerType === 'pen') this.penIsThere(event);
    if (this.pen?.id === event.pointerId) {
      const corner = this.element.getBoundingClientRect();
      const samples = allOf(event).map((e) => this.sample(e, corner));
      this.pen.last = samples.at(-1)!;
      this.target.penMove(samples);
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
      this.reachTheEnd(event, this.pen.last);
      this.pen = null;
      this.target.penUp();
    } else if (this.dragging?.id === event.pointerId) {
      this.dragging = null;
      if (event.pointerType === 'touch' && event.timeStamp - this.velocity.at < 60)
        this.target.fling(this.velocity.x, this.velocity.y);
    }
  }

  /** A busy browser may tell of no move between the last place and the one where the pen was lifted. */
  private reachTheEnd(event: PointerEvent, last: Sample): void {
    const end = this.sample(event, this.element.getBoundingClientRect());
    if (Math.hypot(end.x - last.x, end.y - last.y) < END) return;
    // Lifted, a pen presses no more: it wrote until there as it did before.
    this.target.penMove([{ ...end, pressure: last.pressure }]);
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

  private get fingerWrites(): boolean {
    return this.fingerUse === 'auto' ? !this.isPenInUse : this.fingerUse === 'write';
  }

  /** Whether a touch is of the hand that holds a pen. */
  private isHand(event: PointerEvent): boolean {
    if (this.pen?.device === 'pen' || event.timeStamp - this.penAt < PEN_NEAR) return true;
    return this.isPenInUse && (event.width > PALM || event.height > PALM);
  }

  private penIsThere({ timeStamp }: PointerEvent): void {
    this.penAt = timeStamp;
    if (this.isPenInUse) return;
    this.isPenInUse = true;
    this.target.penInUse(true);
    this.waitForPenToGo(PEN_AWAY);
  }

  private waitForPenToGo(ms: number): void {
    this.away = setTimeout(() => {
      const left = PEN_AWAY - (this.now() - this.penAt);
      if (left > 0) return this.waitForPenToGo(left);
      this.isPenInUse = false;
      this.target.penInUse(false);
    }, ms);
  }

  /** What touches when the pen comes down is the hand that holds it: what that began to write was not meant. */
  private handWasFirst({ timeStamp }: PointerEvent): void {
    this.fingers.clear();
    this.dragging = null;
    if (this.pen?.device !== 'touch') return;
    const meant = timeStamp - this.pen.since > HAND_FIRST;
    this.pen = null;
    if (meant) this.target.penUp();
    else this.target.penLost();
  }

  private capture(event: PointerEvent): void {
    try {
      this.element.setPointerCapture(event.pointerId);
    } catch {
      // The pointer is gone already; its end has been told, or will be.
    }
  }
}
