import type { Id } from '@cuaderno/core/id';
import type { InkPoint, InkStyle } from '@cuaderno/core/ink';
import type { LiveInkEvent } from '../../live/live-ink';

/** A stroke of which nothing has come for this long is given up, in ms. */
const FORGOTTEN = 15_000;

export interface UnderWay {
  /** What stands for it, and the item that it has become, once that is known. */
  readonly n: number;
  item: Id | null;
  readonly by: Id;
  readonly page: Id;
  readonly style: InkStyle;
  readonly points: InkPoint[];
  heardAt: number;
}

/** Strokes of others that are being drawn just now. They are shown, and never kept. */
export class LiveStrokes {
  private readonly strokes = new Map<number, UnderWay>();

  constructor(private readonly now: () => number = () => performance.now()) {}

  all(): UnderWay[] {
    return [...this.strokes.values()];
  }

  receive(event: LiveInkEvent): void {
    const now = this.now();
    for (const [id, { heardAt }] of this.strokes)
      if (now - heardAt > FORGOTTEN) this.strokes.delete(id);
    if (event.kind === 'end') {
      // One that is a line by now stays until that is there.
      const ended = this.strokes.get(event.n);
      if (ended && event.item) Object.assign(ended, { item: event.item, heardAt: now });
      else this.strokes.delete(event.n);
      return;
    }
    const { n, by, start } = event;
    let known = start ? undefined : this.strokes.get(n);
    if (!known) {
      // Anyone who came in the middle sees the line when it is finished.
      if (!start) return;
      known = { n, item: null, by, ...start, points: [], heardAt: now };
      this.strokes.set(n, known);
    }
    known.heardAt = now;
    known.points.push(...event.points);
  }

  /** The finished line has come. */
  settle(n: number): void {
    this.strokes.delete(n);
  }
}
