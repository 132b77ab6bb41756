import { ActivatedRoute } from '@angular/router';
import type { HourRow } from '../../api/timetable';
import { Screen, write } from '../../testing/screen';
import { showTimesIn } from '../../ui/time/shown-zone';
import { HoursScreen } from './hours';

const now = new Date();
const span = (): string => {
  const from = new Date(now.getFullYear(), now.getMonth() - 2, 1).getTime();
  const to = new Date(now.getFullYear(), now.getMonth() + 1, 1).getTime();
  return `GET /hours?from=${from}&to=${to}`;
};
const row = (change: Partial<HourRow> = {}): HourRow => ({
  ...{ lesson: 'l1', course: 'c1', courseName: 'Tides', openedAt: now.getTime() - 3_600_000 },
  ...{
    closedAt: now.getTime(),
    measured: 60,
    minutes: 60,
    corrections: [],
    students: ['Ida'],
    ...change,
  },
});

describe('hours', () => {
  afterEach(() => showTimesIn(null));

  it('write themselves, and what was corrected keeps its reason in sight', async () => {
    const corrections = [{ minutes: 50, why: 'Ida came late', at: 1 }];
    const rows = [row({ minutes: 50, corrections }), row({ lesson: 'l2', courseName: 'Sky' })];
    const screen = await Screen.show(HoursScreen, {}, { [span()]: { rows } });
    expect(screen.text).toContain('1 h 50 min in 2 lessons');
    expect(screen.text).toContain('corrected to 50 min: Ida came late');
    expect(screen.text).toContain('measured 1 h 00 min');
  });

  it('are corrected with a reason', async () => {
    const answers = {
      [span()]: { rows: [row()] },
      'POST /hours/l1/correct': { minutes: 45, why: 'x', at: 2 },
    };
    const screen = await Screen.show(HoursScreen, {}, answers);
    await screen.press('Correct…');
    const [minutes, why] = [...screen.element.querySelectorAll<HTMLInputElement>('.rows input')];
    write(minutes!, '');
    minutes!.dispatchEvent(new Event('blur'));
    await screen.press('Correct');
    expect(screen.text).toContain('Write how many minutes it counts.');
    // What a reader of screens is at is the field itself.
    expect(minutes!.getAttribute('aria-invalid')).toBe('true');
    write(minutes!, '45');
    minutes!.dispatchEvent(new Event('blur'));
    await screen.press('Correct');
    expect(screen.text).toContain('Say why: it stays with the lesson.');
    expect(screen.api.asked.length).toBe(1);
    write(why!, 'The line was away');
    await screen.press('Correct');
    expect(screen.api.asked).toContain({
      call: 'POST /hours/l1/correct',
      body: { minutes: 45, why: 'The line was away' },
    });
  });

  it('are those of months as the account’s clock has them', async () => {
    showTimesIn('Pacific/Auckland');
    const months = new Map([
      ['from', '2026-10'],
      ['to', '2026-11'],
    ]);
    const screen = await Screen.show(
      HoursScreen,
      {},
      // Midnight there, in summer time.
      {
        [`GET /hours?from=${Date.UTC(2026, 8, 30, 11)}&to=${Date.UTC(2026, 10, 30, 11)}`]: {
          rows: [row({ openedAt: Date.UTC(2026, 9, 31, 12), closedAt: Date.UTC(2026, 9, 31, 13) })],
        },
      },
      [{ provide: ActivatedRoute, useValue: { snapshot: { queryParamMap: months } } }],
    );
    expect(screen.text).toContain('November 2026');
    expect(screen.text).toContain('Sun, 1 Nov 2026, 01:00–02:00');
    expect(screen.text).toContain('Times by your clock (Pacific/Auckland)');
  });

  it('are saved as they are shown: of the course that is chosen', async () => {
    const rows = [row(), row({ lesson: 'l2', course: 'c2', courseName: 'Sky' })];
    const screen = await Screen.show(HoursScreen, {}, { [span()]: { rows } });
    await screen.choose('Course', 'c2');
    expect(screen.text).toContain('1 h 00 min in one lesson');
    await screen.press('Save as a table (CSV)');
    await screen.press('Save as a calendar (.ics)');
    const saved = screen.api.asked.map(({ call }) => call).filter((call) => /DOWNLOAD/.test(call));
    expect(saved.length).toBe(2);
    for (const call of saved) expect(call).toContain('&course=c2');
  });

  it('say where they come from as long as there are none', async () => {
    const screen = await Screen.show(HoursScreen, {}, { [span()]: { rows: [] } });
    expect(screen.text).toContain('Hours write themselves');
  });
});
