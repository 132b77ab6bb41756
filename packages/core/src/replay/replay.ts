import type { Board } from '../board/index.js';
import type { Id } from '../id/index.js';
import { decodeStroke } from '../ink/index.js';
import type { InkPoint, InkStyle } from '../ink/index.js';
import { fold } from '../log/index.js';
import type { KeptEntry } from '../log/index.js';
import { replayEventsOf } from './events.js';
import type { ReplayEvent } from './events.js';
import { countWhile } from './halving.js';

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

/**
 * A lesson as it happened: the fold of its log, stopped at any moment. A line appears point by point as it
 * was drawn, and is on the board from the moment at which it was finished.
 */
export class Replay {
  /** What was done, in the order of the log. */
  readonly events: readonly ReplayEvent[];
  /** Boards after 0, `KEEP_EVERY`, 2 × `KEEP_EVERY` … entries. */
  private readonly kept: Board[];
  /** The longest that any line took, in ms. */
  private readonly longest: number;
  private readonly decoded = new Map<number, ReturnType<typeof decodeStroke>>();
  /** Where the last board that was asked for stands: playing on folds only what is new. */
  private cursor: { count: number; board: Board };

  /** @param before the board when the lesson opened @param entries what was done then, in the order of the log */
  constructor(
    before: Board,
    private readonly entries: readonly KeptEntry[],
  ) {
    this.kept = [before];
    this.cursor = { count: 0, board: before };
    this.events = replayEventsOf(entries);
    this.longest = this.events.reduce((most, { from, to }) => Math.max(most, to - from), 0);
    for (let i = 0; i + KEEP_EVERY <= entries.length; i += KEEP_EVERY)
      this.kept.push(fold(this.kept.at(-1)!, entries.slice(i, i + KEEP_EVERY)));
  }

  /** @param at in ms since 1970 */
  at(at: number): Moment {
    const count = countWhile(this.events, ({ to }) => to <= at);
    const drawing = this.drawingAt(at, count);
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

  /** Lines that had begun and were not finished, `count` things being done by then. */
  private drawingAt(at: number, count: number): Drawing[] {
    const drawing: Drawing[] = [];
    // They are in the order in which they were finished: none that takes longer than the longest is of use.
    for (let i = count; i < this.events.length; i++) {
      const { from, to, by, page, kind } = this.events[i]!;
      if (to - this.longest > at) break;
      if (from > at || kind !== 'ink.add') continue;
      const { style, points } = this.strokeOf(i);
      const passed = at - from;
      const shown = points.filter(({ time }) => time <= passed);
      if (shown.length > 0)
        drawing.push({ stroke: this.entries[i]!.op.id, by, page: page!, style, points: shown });
    }
    return drawing;
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

  private lastDeed(count: number): Moment['last'] {
    for (let i = count - 1; i >= 0; i--) {
      const { page, to } = this.events[i]!;
      if (page) return { page, at: to };
    }
    return null;
  }
}
