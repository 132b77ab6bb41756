import type { HourRow } from '../../api/timetable';
import { formatMonth } from '../../ui/time/format-time';

/** By what hours are added up. */
export type TotalsBy = 'course' | 'student' | 'month';

export interface Total {
  readonly label: string;
  readonly lessons: number;
  readonly minutes: number;
}

/**
 * Hours added up, the most first; months in their order. A lesson with several students counts for each of them, so
 * those of students come to more than all.
 */
export function totalsOf(rows: readonly HourRow[], by: TotalsBy): Total[] {
  const totals = new Map<string, { lessons: number; minutes: number; at: number }>();
  for (const row of rows)
    for (const label of labelsOf(row, by)) {
      const known = totals.get(label) ?? { lessons: 0, minutes: 0, at: row.openedAt };
      totals.set(label, {
        lessons: known.lessons + 1,
        minutes: known.minutes + row.minutes,
        at: Math.min(known.at, row.openedAt),
      });
    }
  return [...totals]
    .sort(([, a], [, b]) => (by === 'month' ? a.at - b.at : b.minutes - a.minutes))
    .map(([label, { lessons, minutes }]) => ({ label, lessons, minutes }));
}

function labelsOf(row: HourRow, by: TotalsBy): readonly string[] {
  if (by === 'course') return [row.courseName];
  if (by === 'month') return [formatMonth(row.openedAt)];
  return row.students.length > 0 ? row.students : ['Nobody came'];
}
