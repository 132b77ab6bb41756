import type { CompletedLesson } from '@cuaderno/formats/icalendar';
import type { HourRow } from '@cuaderno/contract/hours';

/** Lessons as calendars show them: from when they were opened until they were closed, whatever they count. */
export function completedLessons(rows: readonly HourRow[]): CompletedLesson[] {
  return rows.map(({ lesson, courseName, students, openedAt, closedAt }) => ({
    id: lesson,
    summary: students.length > 0 ? `${courseName} (${students.join(', ')})` : courseName,
    from: openedAt,
    to: closedAt,
  }));
}
