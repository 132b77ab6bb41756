import { apply, operation } from '../ops/index.js';
import { BoardDraft, boardOutline, emptyBoard, pageSnapshot } from '../board/index.js';
import type { Board } from '../board/index.js';
import { newId } from '../id/index.js';
import { addInk, somePages } from '../testing/index.js';
import { pack, packWithBoard, packWithPages } from './index.js';

const stamp = { by: newId(), at: 1, lesson: null };

function boardOf(count: number): Board {
  const draft = new BoardDraft(emptyBoard(newId()));
  const pages = somePages(count);
  for (let i = 0; i < count; i += 100)
    apply(operation({ kind: 'pages.add', pages: pages.slice(i, i + 100) }), draft, stamp);
  for (const { id } of pages.slice(0, 3)) apply(addInk(id), draft, stamp);
  return draft.done();
}

describe('a board that is sent', () => {
  const fields = { kind: 'welcome', you: newId(), lesson: null, page: undefined };

  it('is byte for byte what it is packed by itself, however many pages it has', () => {
    for (const count of [0, 1, 15, 16, 300]) {
      const board = boardOf(count);
      for (const whole of [new Set<string>(), new Set([...board.pages.keys()].slice(1))]) {
        const sent = pack({ ...fields, outline: boardOutline(board, 7, whole) });
        expect(packWithBoard(fields, board, 7, whole))
          .withContext(`${count} pages, ${whole.size} of them whole`)
          .toEqual(sent);
        // Once more, of what is kept.
        expect(packWithBoard(fields, board, 7, whole)).toEqual(sent);
      }
      const pages = [...board.pages.values()];
      expect(packWithPages(fields, pages)).toEqual(
        pack({ ...fields, pages: pages.map(pageSnapshot) }),
      );
    }
  });

  it('has what changed since it was packed', () => {
    const board = boardOf(4);
    const whole = new Set([...board.pages.keys()].slice(0, 2));
    packWithBoard(fields, board, 7, whole);
    const [first, second] = [...board.pages.keys()] as [string, string];
    const draft = new BoardDraft(board);
    apply(addInk(first), draft, stamp);
    apply(
      operation({ kind: 'page.change', page: second, to: { name: 'Ebb' }, from: { name: '' } }),
      draft,
      stamp,
    );
    const after = draft.done();
    expect(packWithBoard(fields, after, 9, whole)).toEqual(
      pack({ ...fields, outline: boardOutline(after, 9, whole) }),
    );
  });
});
