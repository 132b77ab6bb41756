import {
  encodePiece,
  encodePoints,
  encodeStroke,
  newId,
  operation,
  thinPoints,
} from '@cuaderno/core';
import type { Id, InkPoint } from '@cuaderno/core';
import { chance, handwriting } from '@cuaderno/core/testing';
import type { BareWindow } from './windows.js';

/** At 60 Hz, in ms. */
export const FRAME = 1000 / 60;

/**
 * Writes without a rest but those between strokes and words, as the web client tells it: the points of each
 * frame as a piece, the finished line as an operation. A pen reports itself every 8 ms. A stroke takes some
 * 0.4 s and is followed by 0.15 s in the air, a word by half a second: common practice, no source.
 */
export class BenchWriter {
  private readonly random: () => number;
  private line: readonly InkPoint[] = [];
  private id: Id = newId();
  private next = 0;
  private began = 0;
  private restUntil = 0;
  private strokes = 0;

  constructor(
    private readonly window: BareWindow,
    private readonly page: Id,
    private readonly seed: number,
    /** Where on the page it writes, from its top, in points. */
    private readonly rows: readonly [number, number] = [60, 760],
  ) {
    this.random = chance(seed);
  }

  /** @returns whether the pen was on the page in this frame */
  frame(now: number): boolean {
    if (now < this.restUntil) return false;
    if (this.line.length === 0) this.begin(now);
    const due: InkPoint[] = [];
    while (this.next < this.line.length && this.line[this.next]!.time <= now - this.began)
      due.push(this.line[this.next++]!);
    const first = due[0] === this.line[0];
    const style = { tool: 'pen', ink: 'midnight', width: 2.4 } as const;
    if (due.length > 0)
      this.window.say(
        first
          ? {
              kind: 'live.ink',
              stroke: this.id,
              start: { page: this.page, style },
              points: encodePoints(due),
            }
          : { kind: 'live.more', piece: encodePiece(due, this.line[0]!) },
      );
    if (this.next === this.line.length) this.finish(now);
    return true;
  }

  private begin(now: number): void {
    this.id = newId();
    this.began = now;
    this.next = 0;
    const seed = this.seed * 10_000 + this.strokes;
    const count = 25 + Math.floor(this.random() * 50);
    const x = 60 + this.random() * 400;
    this.line = handwriting(seed, {
      count,
      x,
      y: this.rows[0] + this.random() * (this.rows[1] - this.rows[0]),
    }).points;
  }

  private finish(now: number): void {
    const style = { tool: 'pen', ink: 'midnight', width: 2.4 } as const;
    const ink = encodeStroke({ style, points: thinPoints(this.line, style.width) });
    const op = { ...operation({ kind: 'ink.add', page: this.page, ink }), id: this.id };
    this.window.say({ kind: 'ops', ops: [op] });
    this.line = [];
    this.restUntil = now + (++this.strokes % 5 === 0 ? 500 : 150);
  }
}
