import { writeCsv } from '@cuaderno/formats/csv';
import { DateTime } from 'luxon';
import type { Attended } from '@cuaderno/contract/records';

const HEADER = ['Course', 'Opened', 'Closed', 'Minutes', 'Student', 'Minutes there'];

/**
 * Who came to lessons, as a table (RFC 4180), the first lesson first.
 *
 * @param lessons of one course, the latest first
 * @param zone IANA name of the time zone in which times are said
 */
export function attendanceTable(
  course: string,
  lessons: readonly Attended[],
  zone: string,
): string {
  const time = (ms: number): string =>
    DateTime.fromMillis(ms, { zone }).startOf('second').toISO({ suppressMilliseconds: true })!;
  const minutes = (ms: number): number => Math.round(ms / 60_000);
  const rows = [...lessons].reverse().flatMap(({ openedAt, length, people }) => {
    const lesson = [course, time(openedAt), time(openedAt + length), minutes(length)];
    return people.length === 0
      ? [[...lesson, '', 0]]
      : people.map((person) => [...lesson, person.name, minutes(person.length)]);
  });
  return writeCsv(HEADER, rows);
}
