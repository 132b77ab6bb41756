import { apply } from '../ops/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { addInk, addPages, somePages } from '../testing/index.js';
import { pack, unpack } from '../wire/index.js';
import {
  BoardDraft,
  boardFromOutline,
  BoardOutline,
  boardOutline,
  emptyBoard,
  nearestPages,
} from './index.js';
import type { Board } from './index.js';

const stamp = { by: newId(), at: 1, lesson: null };

/** A board with so many lines on each of its pages. */
function boardWith(...lines: number[]): { board: Board; ids: Id[] } {
  const pages = somePages(lines.length);
  const draft = new BoardDraft(emptyBoard(newId()));
  apply(addPages(pages), draft, stamp);
  lines.forEach((count, i) => {
    for (let n = 0; n < count; n++) apply(addInk(pages[i]!.id, n), draft, stamp);
  });
  return { board: draft.done(), ids: pages.map(({ id }) => id) };
}

describe('a board that is sent page by page', () => {
  it('has all pages as they lie, and what is on some of them', () => {
    const { board, ids } = boardWith(2, 0, 3);
    const sent = unpack(pack(boardOutline(board, 4, new Set([ids[0]!]))));
    const read = boardFromOutline(BoardOutline.parse(sent));
    expect([...read.board.pages.values()].map(({ items }) => items.size)).toEqual([2, 0, 0]);
    expect([...read.coming]).toEqual([[ids[2]!, 3]]);
    const whole = boardFromOutline(boardOutline(board, 4, new Set(ids)));
    expect(whole.board).toEqual(board);
    expect(whole.coming.size).toBe(0);
  });

  it('shows what was known of a page until it comes anew', () => {
    const { board, ids } = boardWith(2, 3);
    const read = boardFromOutline(boardOutline(board, 4, new Set()), board);
    expect(read.board).toEqual(board);
    expect([...read.coming.keys()]).toEqual(ids);
  });

  it('comes from the page in view outwards, in pieces', () => {
    const { board, ids } = boardWith(5, 5, 5, 5, 5);
    const weight = ({ items }: { items: ReadonlyMap<Id, unknown> }): number => items.size;
    const near = (looked: Id | null, most: number, count = 50): number[] =>
      nearestPages(board, looked, weight, most, count).map((id) => ids.indexOf(id));
    expect(near(ids[2]!, 100)).toEqual([2, 3, 1, 4, 0]);
    expect(near(ids[2]!, 15)).toEqual([2, 3, 1]);
    expect(near(ids[4]!, 100, 2)).toEqual([4, 3]);
    // One is always among them, however much is on it; without a page in view it is the first.
    expect(near(null, 1)).toEqual([0]);
    expect(near(newId(), 1)).toEqual([0]);
    expect(nearestPages(board, ids[2]!, () => 0, 100, 50)).toEqual([]);
  });

  it('has pages that were taken out, last of all: they may be brought back', () => {
    const { board, ids } = boardWith(1, 1, 1);
    const draft = new BoardDraft(board);
    draft.setPage(ids[0]!, { removed: { by: newId(), at: 2 } });
    const near = nearestPages(draft.done(), ids[2]!, ({ items }) => items.size, 100, 50);
    expect(near).toEqual([ids[2]!, ids[1]!, ids[0]!]);
  });
});
