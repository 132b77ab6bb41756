import fc from 'fast-check';
import { emptyBoard } from '../board/index.js';
import type { Board } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { decodeStroke, encodeStroke } from '../ink/index.js';
import { fold } from '../log/index.js';
import type { Entry } from '../log/index.js';
import { operation } from '../ops/index.js';
import { addMark, addPages, handwriting, seen, somePages } from '../testing/index.js';
import { Replay } from './index.js';

const OPENED = Date.UTC(2026, 10, 24, 15, 30);

describe('a replay', () => {
  const pages = somePages(3);
  const [maren, ida] = [newId(), newId()];
  let before: Board;

  beforeEach(() => {
    const entry: Entry = {
      seq: 1,
      by: maren,
      at: OPENED - 1000,
      lesson: null,
      op: addPages(pages),
    };
    before = fold(emptyBoard(newId()), [entry]);
  });

  /** Somebody writes a line, some marks are made, and some of it is taken away, so many ms after one another. */
  function lesson(gaps: readonly number[]): Entry[] {
    let at = OPENED;
    const lines: { page: Id; id: Id }[] = [];
    return gaps.map((gap, i) => {
      at += gap;
      const page = pages[i % 3]!.id;
      const gone = i % 7 === 6 ? lines.shift() : undefined;
      const op = gone
        ? operation({ kind: 'items.remove', page: gone.page, items: [gone.id] })
        : i % 5 === 4
          ? addMark(page, { layer: 'ink' })
          : operation({ kind: 'ink.add', page, ink: encodeStroke(handwriting(i, { count: 12 })) });
      if (op.kind === 'ink.add') lines.push({ page, id: op.id });
      return { seq: i + 2, by: i % 2 ? maren : ida, at, lesson: maren, op };
    });
  }

  const gaps = fc.array(fc.integer({ min: 0, max: 4000 }), {
    minLength: 1,
    maxLength: 700,
    size: 'max',
  });

  it('is at every moment what the board was then, whichever way one comes to it', () => {
    fc.assert(
      fc.property(
        gaps,
        fc.array(fc.double({ min: -0.1, max: 1.1, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (list, moments) => {
          const entries = lesson(list);
          const replay = new Replay(before, entries);
          const end = entries.at(-1)!.at;
          for (const part of moments) {
            const at = OPENED + part * (end - OPENED);
            const then = fold(
              before,
              entries.filter((entry) => entry.at <= at),
            );
            expect(seen(replay.at(at).board)).toEqual(seen(then));
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('shows each line as far as it had come, and never twice', () => {
    fc.assert(
      fc.property(gaps, fc.double({ min: 0, max: 1, noNaN: true }), (list, part) => {
        const entries = lesson(list);
        const at = OPENED + part * (entries.at(-1)!.at - OPENED);
        const { board, drawing } = new Replay(before, entries).at(at);
        const expected = entries.flatMap((entry) => {
          if (entry.op.kind !== 'ink.add') return [];
          const { points } = decodeStroke(entry.op.ink);
          const began = entry.at - points.at(-1)!.time;
          const count = points.filter(({ time }) => began + time <= at).length;
          return entry.at > at && count > 0 ? [[entry.op.id, count]] : [];
        });
        expect(drawing.map(({ stroke, points }) => [stroke, points.length])).toEqual(
          expected as [Id, number][],
        );
        for (const { stroke, page } of drawing)
          expect(board.pages.get(page)?.items.has(stroke)).toBeFalse();
      }),
      { numRuns: 60 },
    );
  });

  it('says on which page something happened last: where a line is drawn, else where something was done', () => {
    const entries = lesson([1000, 5000, 5000, 5000]);
    const replay = new Replay(before, entries);
    expect(replay.at(OPENED).last).toBeNull();
    expect(replay.at(OPENED + 3000).last).toEqual({ page: pages[0]!.id, at: OPENED + 1000 });
    expect(replay.at(OPENED + 5990).last).toEqual({ page: pages[1]!.id, at: OPENED + 5990 });
    expect(replay.at(OPENED + 30_000).last).toEqual({ page: pages[0]!.id, at: OPENED + 16_000 });
  });

  it('goes on forwards where the server’s clock went back', () => {
    const entries = lesson([1000, 5000, 5000]);
    entries[1] = { ...entries[1]!, at: OPENED - 60_000 };
    const replay = new Replay(before, entries);
    expect(replay.events.map(({ to }) => to)).toEqual([
      OPENED + 1000,
      OPENED + 1000,
      OPENED + 11_000,
    ]);
    expect(seen(replay.at(OPENED + 2000).board)).toEqual(seen(fold(before, entries.slice(0, 2))));
  });

  it('of a lesson in which nothing happened is the board as it was', () => {
    const replay = new Replay(before, []);
    expect(replay.at(OPENED)).toEqual({ board: before, drawing: [], last: null });
  });
});
