const DAY = 86_400_000;

/** The Monday of a week by this machine's clock, at midnight (ISO 8601: weeks begin on Monday). */
export function mondayOf(at: number): Date {
  const day = new Date(at);
  day.setHours(0, 0, 0, 0);
  day.setDate(day.getDate() - ((day.getDay() + 6) % 7));
  return day;
}

/** So many days later, at midnight, whatever the clocks do in between. */
export function daysLater(day: Date, days: number): Date {
  const later = new Date(day);
  later.setDate(later.getDate() + days);
  return later;
}

/** The week of the year (ISO 8601: the first is the one with the year's first Thursday). */
export function weekOf(monday: Date): number {
  const thursday = daysLater(monday, 3);
  const first = mondayOf(new Date(thursday.getFullYear(), 0, 4).getTime());
  return Math.round((monday.getTime() - first.getTime()) / (7 * DAY)) + 1;
}

/** A day as fields for dates have it: `2026-11-24`. */
export function isoDay(day: Date): string {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}
