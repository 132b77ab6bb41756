import type { Planned } from '../../api/timetable';
import { problem, Screen } from '../../testing/screen';
import { MoveDateDialog } from './move-date-dialog';

describe('a lesson that was carried to another time', () => {
  const at = Date.parse('2026-12-01T15:30Z');
  const lesson: Planned = {
    ...{ plan: 'p', course: 'c', courseName: 'Tides', topic: '', was: '2026-12-01T16:30' },
    ...{ wall: '2026-12-01T16:30', zone: 'Europe/Oslo', at, until: at + 50 * 60_000 },
    ...{ buffer: 10, series: true, state: 'planned', why: '', heldAs: null },
  };
  const show = async (series: boolean, answers = {}) => {
    const inputs = {
      lesson: { ...lesson, series },
      at: at + 26 * 3_600_000,
      zone: 'Europe/Helsinki',
    };
    const screen = await Screen.show(MoveDateDialog, inputs, answers);
    let moved = 0;
    screen.fixture.componentInstance.moved.subscribe(() => moved++);
    return { screen, moved: () => moved };
  };

  it('is said by the clock of the week, and moved by that of its plan', async () => {
    const { screen, moved } = await show(true, { 'POST /plans/p/change': null });
    expect(document.body.textContent).toContain('Tuesday 1 December, 17:30–18:20');
    expect(document.body.textContent).toContain('Wednesday 2 December, 19:30–20:20');
    await screen.press('This date only');
    expect(screen.api.asked.at(-1)!.body).toEqual({
      ...{ was: '2026-12-01T16:30', now: '2026-12-02T18:30', why: '' },
    });
    expect(moved()).toBe(1);
  });

  it('takes all after it along, or says why it can’t', async () => {
    const { screen, moved } = await show(true, {
      'POST /plans/p/move': problem('series-has-days', 'This series came from a calendar.'),
    });
    await screen.press('This date and all after it');
    expect(screen.api.asked.at(-1)!.body).toEqual({
      ...{ was: '2026-12-01T16:30', now: '2026-12-02T18:30' },
    });
    expect(document.body.textContent).toContain('This series came from a calendar.');
    expect(moved()).toBe(0);
  });

  it('of a single lesson asks nothing of a series', async () => {
    const { screen } = await show(false);
    expect(screen.button('Move it')).toBeDefined();
    expect(screen.button('This date and all after it')).toBeUndefined();
  });
});
