import type { HourRow } from '../../api/timetable';
import { totalsOf } from './totals';

const row = (
  courseName: string,
  openedAt: number,
  minutes: number,
  ...students: string[]
): HourRow => ({
  ...{ lesson: `${courseName}${openedAt}`, course: courseName, courseName, openedAt },
  ...{
    closedAt: openedAt + minutes * 60_000,
    measured: minutes,
    minutes,
    corrections: [],
    students,
  },
});

describe('hours added up', () => {
  const rows = [
    row('Sky', new Date(2026, 9, 27, 16).getTime(), 50, 'Ida', 'Jonas'),
    row('Tides', new Date(2026, 10, 5, 17).getTime(), 60, 'Sunniva'),
    row('Sky', new Date(2026, 10, 3, 16).getTime(), 55, 'Ida'),
    row('Sky', new Date(2026, 10, 10, 16).getTime(), 10),
  ];

  it('are those of each course, student and month', () => {
    expect(totalsOf(rows, 'course')).toEqual([
      { label: 'Sky', lessons: 3, minutes: 115 },
      { label: 'Tides', lessons: 1, minutes: 60 },
    ]);
    expect(totalsOf(rows, 'student').map(({ label, minutes }) => [label, minutes])).toEqual([
      ['Ida', 105],
      ['Sunniva', 60],
      ['Jonas', 50],
      ['Nobody came', 10],
    ]);
    expect(totalsOf(rows, 'month').map(({ label, minutes }) => [label, minutes])).toEqual([
      ['October 2026', 50],
      ['November 2026', 125],
    ]);
  });
});
