const DAY = { weekday: 'long', day: 'numeric', month: 'long' } as const;
const CLOCK = { hour: '2-digit', minute: '2-digit' } as const;
const day = new Intl.DateTimeFormat('en-GB', DAY);
const date = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
});
const second = new Intl.DateTimeFormat('en-GB', { timeStyle: 'medium' });
const clock = new Intl.DateTimeFormat('en-GB', CLOCK);

function midnight(at: number): number {
  return new Date(at).setHours(0, 0, 0, 0);
}

/** "today at 16:30", "tomorrow at 16:30", "Tuesday 1 December at 16:30", by this machine's clock. */
export function formatWhen(at: number, now = Date.now()): string {
  const days = Math.round((midnight(at) - midnight(now)) / 86_400_000);
  const name = days === 0 ? 'today' : days === 1 ? 'tomorrow' : day.format(at);
  return `${name} at ${clock.format(at)}`;
}

export function formatDate(at: number): string {
  return date.format(at);
}

/** "Monday 23 November" */
export function formatDay(at: number): string {
  return day.format(at);
}

export function formatClock(at: number): string {
  return clock.format(at);
}

/** "16:30:05" */
export function formatSecond(at: number): string {
  return second.format(at);
}

/** "16:30–17:20" */
export function formatSpan(from: number, to: number): string {
  return `${clock.format(from)}–${clock.format(to)}`;
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
export function formatTimesIn(from: number, to: number, timeZone: string): string {
  const there = new Intl.DateTimeFormat('en-GB', { ...CLOCK, timeZone });
  const on = new Intl.DateTimeFormat('en-GB', { ...DAY, timeZone });
  return `${on.format(from)}, ${there.format(from)}–${there.format(to)}`;
}

/** "16:30–17:20", by the clock of a time zone (its IANA name). */
export function formatSpanIn(from: number, to: number, timeZone: string): string {
  const there = new Intl.DateTimeFormat('en-GB', { ...CLOCK, timeZone });
  return `${there.format(from)}–${there.format(to)}`;
}

/** The time zone of this machine (its IANA name). */
export function thisZone(): string {
  return Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** A time zone as people name it. */
export function formatZone(zone = thisZone()): string {
  return zone.replace(/_/g, ' ');
}

/** For what is asked: that times are to be said in the time zone of this machine. */
export function inThisZone(): { readonly zone: string } {
  return { zone: thisZone() };
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
