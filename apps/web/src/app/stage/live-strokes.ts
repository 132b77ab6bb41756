import type { Id, InkPoint, InkStyle } from '@cuaderno/core';
import type { LiveInkEvent } from '../live/live-ink';

/** A stroke of which nothing has come for this long is given up, in ms. */
const FORGOTTEN = 15_000;

export interface UnderWay {
  readonly stroke: Id;
  readonly by: Id;
  readonly page: Id;
  readonly style: InkStyle;
  readonly points: InkPoint[];
  heardAt: number;
}

/** Strokes of others that are being drawn just now. They are shown, and never kept. */
export class LiveStrokes {
  private readonly strokes = new Map<Id, UnderWay>();

  constructor(private readonly now: () => number = () => performance.now()) {}

  all(): UnderWay[] {
    return [...this.strokes.values()];
  }

  take(event: LiveInkEvent): void {
    const now = this.now();
    for (const [id, { heardAt }] of this.strokes)
      if (now - heardAt > FORGOTTEN) this.strokes.delete(id);
    if (event.kind === 'end') {
      this.strokes.delete(event.stroke);
      return;
    }
    const { stroke, by, start } = event;
    let known = this.strokes.get(stroke);
    if (!known) {
      // Whoever came in the middle sees the line when it is finished.
      if (!start) return;
      known = { stroke, by, ...start, points: [], heardAt: now };
      this.strokes.set(stroke, known);
    }
    known.heardAt = now;
    known.points.push(...event.points);
  }

  /** The finished line has come. */
  settle(stroke: Id): void {
    this.strokes.delete(stroke);
  }
}
