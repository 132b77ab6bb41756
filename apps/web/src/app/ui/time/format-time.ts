import { shownZone } from './shown-zone';

const DAY = { weekday: 'long', day: 'numeric', month: 'long' } as const;
const CLOCK = { hour: '2-digit', minute: '2-digit' } as const;
const day = byZone(DAY);
const date = byZone({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' });
const month = byZone({ month: 'long', year: 'numeric' });
const second = byZone({ timeStyle: 'medium' });
const clock = byZone(CLOCK);
const calendar = byZone({ year: 'numeric', month: '2-digit', day: '2-digit' });

/** A way to say moments by the clock of a zone; by that of this window unless one is named. */
function byZone(options: Intl.DateTimeFormatOptions): (at: number, zone?: string) => string {
  const made = new Map<string, Intl.DateTimeFormat>();
  return (at, timeZone = shownZone()) => {
    let format = made.get(timeZone);
    if (!format) {
      format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone });
      made.set(timeZone, format);
    }
    return format.format(at);
  };
}

/** The day that it is then, counted from 1970. */
function dayNumber(at: number): number {
  const [day, month, year] = calendar(at).split('/').map(Number);
  return Date.UTC(year!, month! - 1, day) / 86_400_000;
}

/** "today at 16:30", "tomorrow at 16:30", "Tuesday 1 December at 16:30". */
export function formatWhen(at: number, now = Date.now()): string {
  const days = dayNumber(at) - dayNumber(now);
  const name = days === 0 ? 'today' : days === 1 ? 'tomorrow' : day(at);
  return `${name} at ${clock(at)}`;
}

export function formatDate(at: number): string {
  return date(at);
}

/** "Monday 23 November" */
export function formatDay(at: number): string {
  return day(at);
}

/** "November 2026" */
export function formatMonth(at: number): string {
  return month(at);
}

export function formatClock(at: number): string {
  return clock(at);
}

/** "16:30:05" */
export function formatSecond(at: number): string {
  return second(at);
}

/** "16:30–17:20" */
export function formatSpan(from: number, to: number): string {
  return `${clock(from)}–${clock(to)}`;
}

/** "48 min" or "1 h 05 min" */
export function formatLength(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  const rest = String(minutes % 60).padStart(2, '0');
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${rest} min`;
}

/** "12 s", or as `sayLength` has it from a minute on; a dash for nothing. */
export function formatShort(ms: number): string {
  const seconds = Math.round(ms / 1000);
  return seconds === 0 ? '–' : seconds < 60 ? `${seconds} s` : formatLength(ms);
}

/** "Monday 23 November, 16:30–17:20", by the clock of a time zone (its IANA name). */
export function formatTimesIn(from: number, to: number, zone: string): string {
  return `${day(from, zone)}, ${formatSpanIn(from, to, zone)}`;
}

/** "16:30–17:20", by the clock of a time zone (its IANA name). */
export function formatSpanIn(from: number, to: number, zone: string): string {
  return `${clock(from, zone)}–${clock(to, zone)}`;
}

/** A time zone as people name it. */
export function formatZone(zone = shownZone()): string {
  return zone.replace(/_/g, ' ');
}

/** The place that a time zone is named after: "Oslo". */
export function formatPlaceOf(zone: string): string {
  return formatZone(zone).split('/').at(-1)!;
}

/** "3:07": a length in seconds, as players show it. */
export function formatPlace(seconds: number): string {
  const whole = Math.max(0, Math.floor(Number.isFinite(seconds) ? seconds : 0));
  const minutes = Math.floor(whole / 60) % 60;
  const hours = Math.floor(whole / 3600);
  const two = (n: number): string => String(n).padStart(2, '0');
  return hours > 0
    ? `${hours}:${two(minutes)}:${two(whole % 60)}`
    : `${minutes}:${two(whole % 60)}`;
}
