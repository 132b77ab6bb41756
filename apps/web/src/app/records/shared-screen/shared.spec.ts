import { Router } from '@angular/router';
import { Screen } from '../../testing/screen';
import { SharedScreen } from './shared';

const DAY = 24 * 3600 * 1000;
const record = (lesson: string, at: number) => ({
  ...{ lesson, title: 'Tide diary', openedAt: at, closedAt: at + 3_000_000 },
});
const LIST = {
  ...{ course: 'Tides', tutor: 'Maren Solheim', forWhom: 'Sigrid', may: 'view', all: true },
  ...{ until: 40 * DAY, records: [record('l2', 20 * DAY), record('l1', 10 * DAY)] },
};

describe('what a parent sees by a link', () => {
  it('takes the focus along into a lesson, and back to it in the list', async () => {
    const screen = await Screen.show(
      SharedScreen,
      { token: 't1' },
      {
        'GET /shared/t1': LIST,
        'GET /shared/t1/records/l1': {
          ...record('l1', 10 * DAY),
          ...{ summary: '', until: '', pages: [], people: [], others: 0, chat: [] },
        },
        'GET /shared/t1/state': {},
      },
    );
    const router = screen.fixture.debugElement.injector.get(Router);
    spyOn(router, 'navigate').and.callFake((_to, extras) => {
      screen.fixture.componentRef.setInput('lesson', extras?.queryParams?.['lesson'] ?? undefined);
      return Promise.resolve(true);
    });
    screen.element.querySelector<HTMLButtonElement>('[data-lesson="l1"]')!.click();
    await screen.settles();
    expect(document.activeElement?.tagName).toBe('H1');
    const back = [...screen.element.querySelectorAll('button')].find((one) =>
      one.textContent.includes('All lessons'),
    )!;
    back.click();
    await screen.settles();
    expect((document.activeElement as HTMLElement).dataset['lesson']).toBe('l1');
  });
});
