import type { Planned } from '../../api/timetable';
import { daysLater, mondayOf } from '../timetable/days';
import { Screen } from '../../testing/screen';
import { WeekScreen } from './week';

const monday = mondayOf(Date.now());
const span = (weeks: number): string =>
  `GET /timetable?from=${daysLater(monday, 7 * weeks).getTime()}&to=${daysLater(monday, 7 * weeks + 7).getTime()}`;
const today = { courses: [{ id: 'c1', name: 'Tides', retiredAt: null }], records: [] };

/** A lesson on the Tuesday of this week. */
function lesson(
  plan: string,
  hour: number,
  minute: number,
  change: Partial<Planned> = {},
): Planned {
  const day = daysLater(monday, 1);
  day.setHours(hour, minute);
  return {
    ...{ plan, course: 'c1', courseName: `Course ${plan}`, topic: '', was: '2026-11-24T16:30' },
    ...{
      wall: '2026-11-24T16:30',
      zone: 'UTC',
      at: day.getTime(),
      until: day.getTime() + 50 * 60_000,
    },
    ...{ buffer: 10, series: true, state: 'planned', why: '', ...change },
  };
}

describe('a week', () => {
  it('has its lessons day by day, with what was moved or cancelled, and why', async () => {
    const lessons = [lesson('a', 10, 0), lesson('b', 16, 30, { state: 'cancelled', why: 'Ill' })];
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: { lessons, clashes: [] }, 'GET /today': today },
    );
    const tuesday = screen.element.querySelectorAll('.days > li')[1]!;
    const words = tuesday.textContent!.replace(/\s+/g, ' ');
    expect(words).toContain('10:00–10:50Course a');
    expect(words).toMatch(/16:30–17:20Course b cancelled: ?Ill/);
  });

  it('reports lessons that get in each other’s way', async () => {
    const [a, b] = [lesson('a', 16, 0), lesson('b', 16, 30)];
    const clashes = [{ first: a, second: b, how: 'overlap' as const }];
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: { lessons: [a, b], clashes }, 'GET /today': today },
    );
    expect(screen.text).toContain('At the same time as Course b');
    expect(screen.text).toContain('At the same time as Course a');
  });

  it('is turned, and says what to do where nothing is planned', async () => {
    const nothing = { lessons: [], clashes: [] };
    const answers = {
      [span(0)]: nothing,
      [span(1)]: { lessons: [], clashes: [] },
      'GET /today': today,
    };
    const screen = await Screen.show(WeekScreen, {}, answers);
    expect(screen.text).toContain(
      'Nothing is planned this week. Plan lessons, or import a calendar.',
    );
    await screen.press('The week after');
    expect(screen.api.asked.map(({ call }) => call)).toContain(span(1));
  });
});
