import type { LessonStatistics } from '@cuaderno/core/replay';
import { Screen } from '../../testing/screen';
import { CourseAttendance } from './course-attendance';
import { StatisticsPanel } from './statistics-panel';

const MINUTE = 60_000;
const statistics: LessonStatistics = {
  pages: [
    { page: 'one', length: 10 * MINUTE },
    { page: 'gone', length: 2 * MINUTE },
  ],
  step: 5 * MINUTE,
  people: [
    { id: 'maren', writing: [0, 61_000], lines: 3, hands: 0, signals: 0, messages: 2 },
    { id: 'ida', writing: [4200, 0], lines: 1, hands: 1, signals: 2, messages: 0 },
  ],
};
const people = [
  { id: 'maren', label: 'Maren', colour: '#0072b2' },
  { id: 'ida', label: 'Ida', colour: '#e69f00' },
];
const rowsOf = (table: Element): string[][] =>
  [...table.querySelectorAll('tbody tr, tfoot tr')].map((row) =>
    [...row.querySelectorAll('th, td')].map((cell) => cell.textContent.trim()),
  );

describe('statistics of a lesson', () => {
  const openedAt = new Date(2026, 10, 24, 16, 30).getTime();
  const show = (of: LessonStatistics) =>
    Screen.show(
      StatisticsPanel,
      { statistics: of, people, openedAt, pageNames: new Map([['one', '1 · Ebb']]) },
      {},
    );

  it('has a table beside each chart', async () => {
    const { element } = await show(statistics);
    const [pages, writing, each] = [...element.querySelectorAll('table')].map(rowsOf);
    expect(pages).toEqual([
      ['1 · Ebb', '10 min'],
      ['a page that was removed', '2 min'],
    ]);
    expect(writing).toEqual([
      ['16:30', '–', '4 s'],
      ['16:35', '1 min', '–'],
    ]);
    expect(each).toEqual([
      ['Maren', '1 min', '3', '0', '0', '2'],
      ['Ida', '4 s', '1', '1', '2', '0'],
    ]);
    expect(element.querySelectorAll('cua-chart').length).toBe(2);
  });

  it('says what there is not', async () => {
    const still = statistics.people.map((one) => ({ ...one, writing: [0, 0] }));
    const { text, element } = await show({ ...statistics, pages: null, people: still });
    expect(text).toContain('wasn’t kept in this lesson');
    expect(text).toContain('Nobody wrote in this lesson');
    expect(element.querySelector('cua-chart')).toBeNull();
  });
});

describe('attendance over the weeks', () => {
  it('says who came to which lesson, for how long, and how often', async () => {
    const lesson = (day: number, there: Record<string, number>) => ({
      lesson: `l${day}`,
      openedAt: new Date(2026, 10, day, 16).getTime(),
      length: 50 * MINUTE,
      people: Object.entries(there).map(([name, minutes]) => ({ name, length: minutes * MINUTE })),
    });
    const { element } = await Screen.show(
      CourseAttendance,
      { lessons: [lesson(24, { Noor: 48, Ida: 50 }), lesson(17, { Ida: 30 })] },
      {},
    );
    expect([...element.querySelectorAll('thead th')].map((th) => th.textContent.trim())).toEqual([
      ...['Lesson', 'Length', 'Ida', 'Noor'],
    ]);
    expect(rowsOf(element.querySelector('table')!)).toEqual([
      ['Tue, 24 Nov 2026', '50 min', '50 min', '48 min'],
      ['Tue, 17 Nov 2026', '50 min', '30 min', '–'],
      ['Came to', '2', '2', '1'],
    ]);
  });
});
