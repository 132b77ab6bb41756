import { signal } from '@angular/core';
import { Screen } from '../../testing/screen';
import { TalkDialog } from './talk-dialog';

describe('the class beside the page', () => {
  const session = {
    me: signal('ida'),
    people: signal([]),
    role: signal('student'),
    applies: signal(() => ({ chatAll: true, chatTutor: true, why: {} })),
    features: { talk: { chat: signal([]), write: () => true }, pens: { lead: signal(null) } },
  };

  it('takes the focus as it opens, closes by Escape, and gives the focus back', async () => {
    const opener = document.createElement('button');
    document.body.append(opener);
    opener.focus();
    const screen = await Screen.show(TalkDialog, { session }, {});
    expect(screen.element.contains(document.activeElement)).toBeTrue();
    let closed = 0;
    screen.fixture.componentInstance.closed.subscribe(() => closed++);
    document.activeElement!.dispatchEvent(
      new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }),
    );
    expect(closed).toBe(1);
    screen.fixture.destroy();
    expect(document.activeElement).toBe(opener);
    opener.remove();
  });
});
