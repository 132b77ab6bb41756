import { Screen } from '../../testing/screen';
import { LateOffers } from './late-offers';
import { OwnLateNotice } from './own-late-notice';
import type { OwnLateLines } from './shapes';

describe('what a student hears about late lines', () => {
  let lessons: OwnLateLines[];
  const one = { lesson: 'l1', courseName: 'Tides', openedAt: 1, waiting: 0, added: 0, left: 0 };

  async function show(): Promise<Screen<OwnLateNotice>> {
    const screen = await Screen.show(
      OwnLateNotice,
      {},
      {
        'GET /late-lines/own': () => ({ lessons }),
        'POST /late-lines/own/told': () => {
          lessons = [];
          return null;
        },
      },
    );
    await screen.fixture.debugElement.injector.get(LateOffers).load();
    await screen.settles();
    return screen;
  }

  it('is nothing where there are none', async () => {
    lessons = [];
    expect((await show()).text).toBe('');
  });

  it('is that they are with the tutor, until that was read or others are, too', async () => {
    lessons = [
      { ...one, waiting: 1 },
      { ...one, lesson: 'l2', waiting: 2 },
    ];
    const screen = await show();
    expect(screen.text).toContain(
      '3 lines that you wrote while the connection was lost are with your tutor',
    );
    await screen.press('All right');
    expect(screen.text).toBe('');
    lessons = [{ ...one, waiting: 4 }];
    await screen.fixture.debugElement.injector.get(LateOffers).load();
    await screen.settles();
    expect(screen.text).toContain('4 lines');
  });

  it('is how many were added and left, until it was read', async () => {
    lessons = [{ ...one, added: 2, left: 1 }];
    const screen = await show();
    expect(screen.text).toContain('Your tutor added 2 lines');
    expect(screen.text).toContain('a late line of yours and left it out');
    await screen.press('All right');
    expect(screen.text).toBe('');
  });
});
