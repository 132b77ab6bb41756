import type { Planned } from '../../api/timetable';
import { daysLater, mondayOf } from '../timetable/days';
import { Screen } from '../../testing/screen';
import { WeekScreen } from './week';

const monday = mondayOf(Date.now());
const span = (weeks: number): string =>
  `GET /timetable?from=${daysLater(monday, 7 * weeks - 1).getTime()}&to=${daysLater(monday, 7 * weeks + 8).getTime()}`;
const part = (more: object) => ({ lessons: [], clashes: [], held: [], zone: null, ...more });
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
    ...{ buffer: 10, series: true, state: 'planned', why: '', heldAs: null, ...change },
  };
}

describe('a week', () => {
  it('has its lessons day by day, with what was moved or cancelled, and why', async () => {
    const lessons = [lesson('a', 10, 0), lesson('b', 16, 30, { state: 'cancelled', why: 'Ill' })];
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: part({ lessons }), 'GET /today': today },
    );
    const tuesday = screen.element.querySelectorAll('.days > li')[1]!;
    const words = tuesday.textContent!.replace(/\s+/g, ' ');
    expect(words).toContain('10:00–10:50Course a');
    expect(words).toMatch(/16:30–17:20Course b ?cancelled: ?Ill/);
  });

  it('reports lessons that get in each other’s way', async () => {
    const [a, b] = [lesson('a', 16, 0), lesson('b', 16, 30)];
    const clashes = [{ first: a, second: b, how: 'overlap' as const }];
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: part({ lessons: [a, b], clashes }), 'GET /today': today },
    );
    expect(screen.text).toContain('At the same time as Course b');
    expect(screen.text).toContain('At the same time as Course a');
  });

  it('is turned, and says what to do where nothing is planned', async () => {
    const nothing = part({});
    const answers = {
      [span(0)]: nothing,
      [span(1)]: nothing,
      'GET /today': today,
    };
    const screen = await Screen.show(WeekScreen, {}, answers);
    expect(screen.text).toContain(
      'Nothing is planned this week. Plan lessons, or import a calendar.',
    );
    await screen.press('The week after');
    expect(screen.api.asked.map(({ call }) => call)).toContain(span(1));
  });

  it('shows a date for which a lesson took place as that lesson, with the way to its record', async () => {
    const [a, b] = [lesson('a', 10, 0, { heldAs: 'l1', topic: 'Rigel' }), lesson('b', 16, 30)];
    const held = [
      { lesson: 'l1', course: 'c1', courseName: 'Course a', at: a.at + 60_000, until: a.until },
    ];
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: part({ lessons: [a, b], held }), 'GET /today': today },
    );
    const all = [...screen.element.querySelectorAll('.days .lesson')];
    expect(all.map(({ textContent }) => textContent.replace(/\s+/g, ' ').trim())).toEqual([
      'Record, 10:01–10:50Course aRigel',
      '16:30–17:20Course b',
    ]);
    expect(all[0]!.getAttribute('href')).toBe('/records/l1');
  });

  it('is by the clock of the tutor’s zone, with that of this machine beside it', async () => {
    const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
    // Late in the evening here it is the next day there.
    const late = lesson('a', 23, 30);
    const zone = 'Pacific/Kiritimati';
    const screen = await Screen.show(
      WeekScreen,
      {},
      { [span(0)]: part({ lessons: [late], zone }), 'GET /today': today },
    );
    expect(screen.text).toContain('Times by the clock of Pacific/Kiritimati, your time zone.');
    expect(screen.text).toContain(`This machine is in ${here.replace(/_/g, ' ')}`);
    const days = [...screen.element.querySelectorAll('.days > li')];
    expect(days.findIndex((day) => day.querySelector('.lesson'))).toBe(2);
    expect(screen.text).toContain(`23:30–00:20 in ${here.split('/').at(-1)!.replace(/_/g, ' ')}`);
  });
});
