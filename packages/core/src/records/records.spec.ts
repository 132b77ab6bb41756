import fc from 'fast-check';
import { emptyBoard, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board } from '../board/index.js';
import { newId } from '../id/index.js';
import { fold } from '../log/index.js';
import type { Entry } from '../log/index.js';
import { changePage, operation } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import { keyBetween } from '../order/index.js';
import { addInk, addMark, addPages, somePages } from '../testing/index.js';
import { coverPage, joinBoards, joinLogs, pageInRecord, placeOf, recordTitle } from './index.js';

const PAGES = 3;

/** What is done on one board: each number is a step on its own kind. */
const steps = fc.array(fc.record({ what: fc.nat(6), page: fc.nat(PAGES - 1), wait: fc.nat(50) }), {
  maxLength: 12,
});

/** A board of some pages, and the entries that follow on it. */
function written(
  script: readonly { what: number; page: number; wait: number }[],
  pages = somePages(PAGES),
) {
  const id = newId();
  const by = newId();
  let at = 1000;
  let board = emptyBoard(id);
  const entries: Entry[] = [];
  const take = (op: Operation): void => {
    const entry = { seq: entries.length + 1, by, at, lesson: null, op };
    entries.push(entry);
    board = fold(board, [entry]);
  };
  take(operation({ kind: 'board.rename', title: `Board ${id}`, former: '' }));
  take(addPages(pages));
  for (const { what, page, wait } of script) {
    at += wait;
    const { id: on, order } = pages[page]!;
    const first = itemsOn(board.pages.get(on)!)[0];
    const ways: (() => Operation | null)[] = [
      () => addInk(on, what + wait),
      () => addMark(on),
      () => (first ? operation({ kind: 'items.remove', page: on, items: [first.id] }) : null),
      () => operation({ kind: 'pages.remove', pages: [on] }),
      () => operation({ kind: 'pages.restore', pages: [on] }),
      () => {
        const change = changePage(board, on, { order: keyBetween(order, null), name: 'Moved' });
        return change && operation(change);
      },
      () => operation({ kind: 'board.rules', to: { trust: 'view' }, from: {} }),
    ];
    const op = ways[what]!();
    if (op) take(op);
  }
  return { id, entries, board };
}

describe('A record of several boards', () => {
  it('is the same, joined before it is folded and after', () => {
    fc.assert(
      fc.property(fc.array(steps, { minLength: 1, maxLength: 4 }), fc.nat(6), (scripts, split) => {
        const boards = scripts.map((script) => written(script));
        const before = boards.map(({ id, entries }) =>
          fold(emptyBoard(id), entries.slice(0, split)),
        );
        const logs = boards.map(({ id, entries }, place) => ({
          board: { id, place },
          entries: entries.slice(split),
        }));
        const joined = fold(joinBoards(before), joinLogs(logs, 1));
        const after = joinBoards(boards.map(({ board }) => board));
        expect(new Map(joined.pages)).toEqual(new Map(after.pages));
        expect(pagesInOrder(joined).map(({ id }) => id)).toEqual(
          pagesInOrder(after).map(({ id }) => id),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('has the pages of the first board, then those of the second, each in its order', () => {
    const boards = [written([]), written([]), written([])].map(({ board }) => board);
    const pages = pagesInOrder(joinBoards(boards));
    expect(pages.map(placeOf)).toEqual([0, 0, 0, 1, 1, 1, 2, 2, 2]);
    expect(pages.map(({ name }) => name)).toEqual(
      boards.flatMap((board) => pagesInOrder(board).map(({ name }) => name)),
    );
  });

  it('tells two pages of one id apart, where one board was made of the other’s file', () => {
    const pages = somePages(2);
    const [one, other] = [written([], pages).board, written([], pages).board];
    expect(joinBoards([one, other]).pages.size).toBe(4);
  });

  it('calls the pages of the first board as they are called there, and no two of another alike', () => {
    fc.assert(
      fc.property(fc.nat(200), (place) => {
        const [page, other, board] = [newId(), newId(), { id: newId(), place }];
        expect(pageInRecord(page, board) === page).toBe(place === 0);
        expect(pageInRecord(page, board)).not.toBe(pageInRecord(other, board));
      }),
    );
  });

  it('goes on in the order of time, and in the order of its log where clocks went back', () => {
    const one = written([{ what: 0, page: 0, wait: 50 }]);
    const other = written([{ what: 0, page: 1, wait: 10 }]);
    const late: Board[] = [emptyBoard(one.id), emptyBoard(other.id)];
    const logs = [one, other].map(({ id, entries }, place) => ({ board: { id, place }, entries }));
    const joined = joinLogs(logs, 5);
    expect(joined.map(({ at }) => at)).toEqual(
      [...joined.map(({ at }) => at)].sort((a, b) => a - b),
    );
    expect(joined.map(({ seq }) => seq)).toEqual(joined.map((_, i) => 5 + i));
    expect(fold(joinBoards(late), joined).pages.size).toBe(2 * PAGES);
  });

  it('of one board is that board, and its own entries', () => {
    const { board, entries, id } = written([{ what: 0, page: 0, wait: 1 }]);
    expect(joinBoards([board])).toBe(board);
    expect(joinLogs([{ board: { id, place: 0 }, entries }], 9)).toEqual(entries);
  });

  it('is called by its boards', () => {
    expect(recordTitle(['Star chart', 'Moon'])).toBe('Star chart, Moon');
    expect(recordTitle(['Sky', 'Sky'])).toBe('Sky');
    expect(recordTitle(Array.from({ length: 40 }, (_, i) => `Board number ${i}`)).length).toBe(200);
  });
});

describe('The page that stands for a record', () => {
  it('is the one with most ink on it, and the first where there is none', () => {
    expect(coverPage(emptyBoard(newId()))).toBeUndefined();
    const pages = somePages(PAGES);
    const on = (...script: readonly [page: number, what: number][]): number => {
      const steps = script.map(([page, what]) => ({ page, what, wait: 1 }));
      const cover = coverPage(written(steps, pages).board);
      return pages.findIndex(({ id }) => id === cover?.id);
    };
    expect(on()).toBe(0);
    expect(on([1, 0], [2, 0], [2, 0])).toBe(2);
    // Of two with as much, the earlier; what was removed counts no more, a page that was removed neither.
    expect(on([2, 0], [1, 0])).toBe(1);
    expect(on([1, 0], [2, 0], [1, 2])).toBe(2);
    expect(on([1, 0], [2, 0], [2, 0], [2, 3])).toBe(1);
  });
});
