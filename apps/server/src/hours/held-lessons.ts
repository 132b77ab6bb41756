import type { HeldLesson } from '@cuaderno/formats/icalendar';
import type { HourRow } from './shapes.js';

/** Lessons as calendars show them: from when they were opened until they were closed, whatever they count. */
export function heldLessons(rows: readonly HourRow[]): HeldLesson[] {
  return rows.map(({ lesson, courseName, students, openedAt, closedAt }) => ({
    id: lesson,
    summary: students.length > 0 ? `${courseName} (${students.join(', ')})` : courseName,
    from: openedAt,
    to: closedAt,
  }));
}
