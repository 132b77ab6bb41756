import { apply, operation } from '../ops/index.js';
import { BoardDraft, boardSnapshot, emptyBoard } from '../board/index.js';
import type { Board } from '../board/index.js';
import { newId } from '../id/index.js';
import { addInk, somePages } from '../testing/index.js';
import { pack, packWithBoard } from './index.js';

const stamp = { by: newId(), at: 1, lesson: null };

function boardOf(count: number): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const pages = somePages(count);
  for (let i = 0; i < count; i += 100)
    apply(operation({ kind: 'pages.add', pages: pages.slice(i, i + 100) }), draft, stamp);
  for (const { id } of pages.slice(0, 3)) apply(addInk(id), draft, stamp);
  return draft.done();
}

describe('a board that is sent whole', () => {
  const fields = { kind: 'welcome', you: newId(), lesson: null, page: undefined };

  it('is byte for byte what it is packed by itself, however many pages it has', () => {
    for (const count of [0, 1, 15, 16, 300]) {
      const board = boardOf(count);
      const whole = pack({ ...fields, board: boardSnapshot(board, 7) });
      expect(packWithBoard(fields, board, 7))
        .withContext(`${count} pages`)
        .toEqual(whole);
      // Once more, of what is kept.
      expect(packWithBoard(fields, board, 7)).toEqual(whole);
    }
  });

  it('has what changed since it was packed', () => {
    const board = boardOf(4);
    packWithBoard(fields, board, 7);
    const [first, second] = [...board.pages.keys()] as [string, string];
    const draft = new BoardDraft(board);
    apply(addInk(first), draft, stamp);
    apply(
      operation({ kind: 'page.change', page: second, to: { name: 'Ebb' }, from: { name: '' } }),
      draft,
      stamp,
    );
    const after = draft.done();
    expect(packWithBoard(fields, after, 9)).toEqual(
      pack({ ...fields, board: boardSnapshot(after, 9) }),
    );
  });
});
