import type { Board } from '../board/index.js';
import type { Id } from '../id/index.js';
import { decodeStroke } from '../ink/index.js';
import type { InkPoint, InkStyle } from '../ink/index.js';
import { fold } from '../log/index.js';
import type { Entry } from '../log/index.js';
import type { Stretch } from './pace.js';

/** Entries between two boards that are kept: as many are folded at most to see any moment. */
const KEEP_EVERY = 256;

/** A line that is being drawn at some moment, as far as it had come then. */
export interface Drawing {
  readonly stroke: Id;
  readonly by: Id;
  readonly page: Id;
  readonly style: InkStyle;
  readonly points: readonly InkPoint[];
}

/** What a lesson looked like at a moment. */
export interface Moment {
  readonly board: Board;
  readonly drawing: readonly Drawing[];
  /** The page on which something happened last, and when; `null` before anything did. */
  readonly last: { readonly page: Id; readonly at: number } | null;
}

/** What somebody did, and how long it took. */
export interface Deed extends Stretch {
  readonly by: Id;
  readonly page: Id | null;
  readonly kind: Entry['op']['kind'];
}

interface Line {
  readonly entry: number;
  readonly from: number;
  readonly to: number;
  readonly page: Id;
}

/**
 * A lesson as it happened: the fold of its log, stopped at any moment. A line appears point by point as it
 * was drawn, and is on the board from the moment at which it was finished.
 */
export class Replay {
  /** What was done, in the order of the log. */
  readonly deeds: readonly Deed[];
  /** When each entry came; never before the one before it, whatever the server's clock did. */
  private readonly times: number[] = [];
  /** Boards after 0, `KEEP_EVERY`, 2 × `KEEP_EVERY` … entries. */
  private readonly kept: Board[];
  private readonly lines: Line[] = [];
  /** The longest that any line took, in ms. */
  private longest = 0;
  private readonly decoded = new Map<number, ReturnType<typeof decodeStroke>>();
  /** Where the last board that was asked for stands: playing on folds only what is new. */
  private cursor: { count: number; board: Board };

  /** @param before the board when the lesson opened @param entries what was done then, in the order of the log */
  constructor(
    before: Board,
    private readonly entries: readonly Entry[],
  ) {
    this.kept = [before];
    this.cursor = { count: 0, board: before };
    const deeds: Deed[] = [];
    let now = -Infinity;
    for (const [i, { at, by, op }] of entries.entries()) {
      now = Math.max(now, at);
      this.times.push(now);
      const page = 'page' in op ? op.page : null;
      const took = op.kind === 'ink.add' ? this.tookFor(op.ink) : 0;
      deeds.push({ by, page, kind: op.kind, from: now - took, to: now });
      if (op.kind !== 'ink.add') continue;
      this.lines.push({ entry: i, from: now - took, to: now, page: op.page });
      this.longest = Math.max(this.longest, took);
    }
    this.deeds = deeds;
    for (let i = 0; i + KEEP_EVERY <= entries.length; i += KEEP_EVERY)
      this.kept.push(fold(this.kept.at(-1)!, entries.slice(i, i + KEEP_EVERY)));
  }

  /** @param at in ms since 1970 */
  at(at: number): Moment {
    const count = after(this.times, at);
    const drawing = this.drawingAt(at);
    const pen = drawing.at(-1);
    return {
      board: this.boardAfter(count),
      drawing,
      last: pen ? { page: pen.page, at } : this.lastDeed(count),
    };
  }

  private boardAfter(count: number): Board {
    const near = Math.floor(count / KEEP_EVERY);
    let from = { count: near * KEEP_EVERY, board: this.kept[near]! };
    if (this.cursor.count <= count && this.cursor.count > from.count) from = this.cursor;
    const board = fold(from.board, this.entries.slice(from.count, count));
    this.cursor = { count, board };
    return board;
  }

  /** Lines that had begun and were not finished. */
  private drawingAt(at: number): Drawing[] {
    const drawing: Drawing[] = [];
    // Lines are in the order in which they were finished: none that takes longer than the longest is of use.
    for (let i = this.firstLineAfter(at); i < this.lines.length; i++) {
      const { from, to, entry, page } = this.lines[i]!;
      if (to - this.longest > at) break;
      if (from > at) continue;
      const { by, op } = this.entries[entry]!;
      const { style, points } = this.strokeOf(entry);
      const passed = at - from;
      const shown = points.filter(({ time }) => time <= passed);
      if (shown.length > 0) drawing.push({ stroke: op.id, by, page, style, points: shown });
    }
    return drawing;
  }

  private firstLineAfter(at: number): number {
    let [low, high] = [0, this.lines.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.lines[middle]!.to <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  private strokeOf(entry: number): ReturnType<typeof decodeStroke> {
    let stroke = this.decoded.get(entry);
    if (!stroke) {
      const { op } = this.entries[entry]!;
      if (op.kind !== 'ink.add') throw new Error('Only ink is drawn point by point.');
      // A few are under way at once; what was seen is not kept for long.
      if (this.decoded.size > 64) this.decoded.clear();
      this.decoded.set(entry, (stroke = decodeStroke(op.ink)));
    }
    return stroke;
  }

  private tookFor(ink: Uint8Array): number {
    const { points } = decodeStroke(ink);
    return points.at(-1)!.time - points[0]!.time;
  }

  private lastDeed(count: number): Moment['last'] {
    for (let i = count - 1; i >= 0; i--) {
      const { page, to } = this.deeds[i]!;
      if (page) return { page, at: to };
    }
    return null;
  }
}

/** How many of these ascending times are not after `at`. */
function after(times: readonly number[], at: number): number {
  let [low, high] = [0, times.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle]! <= at) low = middle + 1;
    else high = middle;
  }
  return low;
}
