import { emptyBoard } from '@cuaderno/core/board';
import { fold } from '@cuaderno/core/log';
import type { ChatLine } from '@cuaderno/core/features';
import { addPages, somePages } from '@cuaderno/core/testing';
import { signal } from '@angular/core';
import { Screen } from '../../testing/screen';
import { Announcer } from './announcer';

describe('what is said to those who don’t see the screen', () => {
  const pages = somePages(3);
  const board = fold(emptyBoard('b'), [
    { seq: 1, by: 'maren', at: 0, lesson: null, op: addPages(pages) },
  ]);
  const line = (id: string, by: string, text: string): ChatLine => ({
    id,
    by,
    to: 'all',
    text,
    at: 1,
  });

  it('is the page that came into view, and the last message of somebody else', async () => {
    const chat = signal<readonly ChatLine[]>([line('1', 'maren', 'Before you came')]);
    const session = {
      board: signal(board),
      me: signal('ida'),
      people: signal([{ id: 'maren', name: 'Maren', nameOrdinal: 1 }]),
      features: { talk: { chat } },
    };
    const screen = await Screen.show(Announcer, { session, page: pages[1]!.id }, {});
    expect(screen.text).toContain('Page 2 of 3');
    expect(screen.text).not.toContain('Before you came');
    chat.update((lines) => [
      ...lines,
      line('2', 'maren', 'Look at the tides'),
      line('3', 'ida', 'Yes'),
    ]);
    await screen.settles();
    expect(screen.text).toContain('Maren: Look at the tides');
    screen.fixture.componentRef.setInput('page', pages[2]!.id);
    await screen.settles();
    expect(screen.text).toContain('Page 3 of 3');
  });
});
