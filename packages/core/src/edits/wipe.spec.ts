import { BoardDraft, emptyBoard, itemsOn } from '../board/index.js';
import { newId } from '../id/index.js';
import { apply, operation } from '../ops/index.js';
import { addInk, addMark, addPages, somePages } from '../testing/index.js';
import { wipe, writersOn } from './index.js';
import type { Whose } from './index.js';

describe('wiping', () => {
  const [maren, ida, noor] = [newId(), newId(), newId()];
  const [first, second] = somePages(2);

  function board() {
    const draft = new BoardDraft(emptyBoard(newId()));
    const by = (who: string, op: ReturnType<typeof addInk>) =>
      apply(op, draft, { by: who, at: 1, lesson: null });
    by(maren, addPages([first!, second!]));
    by(maren, addInk(first!.id, 1));
    by(ida, addInk(first!.id, 2));
    by(ida, addMark(first!.id, { layer: 'ink' }));
    by(noor, addInk(first!.id, 3));
    by(noor, addInk(second!.id, 4));
    by(maren, addMark(first!.id));
    by(maren, addMark(first!.id, { layer: 'ink', hidden: true }));
    return draft.done();
  }

  function left(whose: Whose, pages: string[] | 'all'): number[] {
    const before = board();
    const draft = new BoardDraft(before);
    for (const change of wipe(before, whose, pages, maren))
      apply(operation(change), draft, { by: maren, at: 2, lesson: null });
    return [first!, second!].map(({ id }) => itemsOn(draft.done().pages.get(id)!).length);
  }

  it('takes whose ink is meant, where it is meant; material and what is hidden stay', () => {
    expect(left({ who: maren }, [first!.id])).toEqual([5, 1]);
    expect(left({ who: ida }, [first!.id])).toEqual([4, 1]);
    expect(left({ who: noor }, 'all')).toEqual([5, 0]);
    expect(left('students', [first!.id])).toEqual([3, 1]);
    expect(left('students', 'all')).toEqual([3, 0]);
    expect(left('all', [first!.id])).toEqual([2, 1]);
    expect(left('all', 'all')).toEqual([2, 0]);
  });

  it('has nothing to do where nothing is written', () => {
    expect(wipe(board(), { who: newId() }, 'all', maren)).toEqual([]);
  });

  it('knows who has written where', () => {
    expect([...writersOn(board(), [second!.id])]).toEqual([[noor, 1]]);
    expect(new Set(writersOn(board(), 'all').keys())).toEqual(new Set([maren, ida, noor]));
  });
});
