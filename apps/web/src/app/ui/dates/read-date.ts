/** The first letters of the months, as much as tells them apart. */
const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');

/** Whether a day is written before its month in this browser's language. */
export function isDayFirst(language = navigator.language): boolean {
  const parts = new Intl.DateTimeFormat(language).formatToParts(0).map(({ type }) => type);
  return parts.indexOf('day') < parts.indexOf('month');
}

/**
 * A day as somebody types it: `3 Dec 2026`, `December 3`, `3.12.26`, `2026-12-03`; without a year, the one in which it
 * is nearest. `null` where it can't be read, or there is no such day.
 *
 * @param dayFirst how `3/4` is meant
 * @returns the day as it begins by this machine's clock
 */
export function readDay(text: string, now: Date, dayFirst = isDayFirst()): Date | null {
  const [a, b, c] = partsOf(text);
  if (a === undefined || b === undefined) return null;
  if (String(a).length === 4) return dayAt(a, b, c);
  if (isMonth(a)) return near(b, a, c, now);
  if (isMonth(b) || dayFirst) return near(a, b, c, now);
  return near(b, a, c, now);
}

/** A month as somebody types it: `Nov 2026`, `11/2026`, `2026-11`, `November`. `null` where it can't be read. */
export function readMonth(text: string, now: Date): Date | null {
  const [a, b] = partsOf(text);
  if (a === undefined) return null;
  if (String(a).length === 4) return dayAt(a, b, '1');
  return b === undefined && !isMonth(a) ? null : near('1', a, b, now);
}

/**
 * A time of day as somebody types it: `16:30`, `16.30`, `1630`, `16`, `4:30 pm`, `4pm`. `null` where it can't be read.
 *
 * @returns the hour and the minute
 */
export function readTime(text: string): { hour: number; minute: number } | null {
  const found = /^(\d{1,2})(?:[:.h ]?(\d{2}))? ?([ap])?\.?(?:m\.?)?$/i.exec(text.trim());
  if (!found) return null;
  const half = found[3]?.toLowerCase();
  const written = Number(found[1]);
  const minute = Number(found[2] ?? 0);
  if (half && (written < 1 || written > 12)) return null;
  const hour = half ? (written % 12) + (half === 'p' ? 12 : 0) : written;
  return hour > 23 || minute > 59 ? null : { hour, minute };
}

/** Numbers and names of what is written; a day's name says nothing new. */
function partsOf(text: string): string[] {
  const parts = text.toLowerCase().match(/\d+|\p{L}+/gu) ?? [];
  return parts.filter((part) => /^\d/.test(part) || isMonth(part)).slice(0, 3);
}

function isMonth(part: string): boolean {
  return monthOf(part) !== null && !/^\d/.test(part);
}

/** From 1 for January on. */
function monthOf(part: string): number | null {
  if (/^\d+$/.test(part)) return Number(part);
  const place = MONTHS.indexOf(part.slice(0, 3));
  return place < 0 ? null : place + 1;
}

/** Without a year, in the one in which it is nearest to now. */
function near(day: string, month: string, year: string | undefined, now: Date): Date | null {
  if (year !== undefined) return dayAt(year.length === 2 ? `20${year}` : year, month, day);
  const years = [-1, 0, 1].map((more) => String(now.getFullYear() + more));
  const days = years.map((one) => dayAt(one, month, day)).filter((one) => one !== null);
  const away = (one: Date): number => Math.abs(one.getTime() - now.getTime());
  return days.sort((one, other) => away(one) - away(other))[0] ?? null;
}

function dayAt(year: string, month: string | undefined, day: string | undefined): Date | null {
  const [y, m, d] = [Number(year), monthOf(month ?? '') ?? NaN, Number(day ?? NaN)];
  const at = new Date(y, m - 1, d);
  const isThatDay = at.getFullYear() === y && at.getMonth() === m - 1 && at.getDate() === d;
  return isThatDay && y >= 1970 && y <= 9999 ? at : null;
}
