import { emptyBoard } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import type { Board, Page } from '@cuaderno/core/board';
import { somePages } from '@cuaderno/core/testing';
import { Screen } from '../../testing/screen';
import { UnreadableNotice } from './unreadable-notice';

describe('what can’t be read of a board', () => {
  const [first, second] = somePages(2).map((page): Page => ({
    ...page,
    removed: null,
    items: new Map(),
  })) as [Page, Page];
  const board = (unreadable: number): Board => ({
    ...emptyBoard(newId()),
    unreadable,
    pages: new Map([
      [first.id, { ...first, unreadable: 1 }],
      [second.id, second],
    ]),
  });

  it('is told on its page, and what it was to the tutor', async () => {
    const screen = await Screen.show(
      UnreadableNotice,
      { board: board(1), page: first.id, reportOf: 'b' },
      {
        'GET /boards/b/unreadable': {
          entries: [{ seq: 4, kind: 'line', page: first.id, by: 'Ida', at: Date.now() }],
        },
      },
    );
    expect(screen.text).toContain('Something on this page can’t be read any more.');
    await screen.press('What is it?');
    expect(screen.text).toContain('A line');
    expect(screen.text).toContain('on page 1, by Ida');
  });

  it('is told to students without a report, and on no other page', async () => {
    const there = await Screen.show(UnreadableNotice, { board: board(1), page: first.id }, {});
    expect(there.text).toContain('can’t be read any more');
    expect(there.text).not.toContain('What is it?');
    there.fixture.componentRef.setInput('page', second.id);
    await there.fixture.whenStable();
    expect(there.text).toBe('');
  });

  it('is reported for the board where no page is known', async () => {
    const screen = await Screen.show(
      UnreadableNotice,
      { board: board(3), page: second.id, reportOf: 'b' },
      {},
    );
    expect(screen.text).toContain('Something on this board can’t be read any more.');
  });
});
