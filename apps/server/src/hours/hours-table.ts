import { writeCsv } from '@cuaderno/formats/csv';
import { DateTime } from 'luxon';
import type { HourRow } from '@cuaderno/contract/hours';

const HEADER = ['Course', 'Students', 'Opened', 'Closed', 'Measured', 'Minutes', 'Corrected'];

/**
 * Lessons as they count, as a table (RFC 4180), the first lesson first.
 *
 * @param rows the latest first
 * @param zone IANA name of the time zone in which times are said
 */
export function hoursTable(rows: readonly HourRow[], zone: string): string {
  const time = (ms: number): string =>
    DateTime.fromMillis(ms, { zone }).startOf('second').toISO({ suppressMilliseconds: true })!;
  const table = [...rows]
    .reverse()
    .map((row) => [
      row.courseName,
      row.students.join(', '),
      time(row.openedAt),
      time(row.closedAt),
      row.measured,
      row.minutes,
      row.corrections.map(({ minutes, why }) => `${minutes}: ${why}`).join('; '),
    ]);
  return writeCsv(HEADER, table);
}
