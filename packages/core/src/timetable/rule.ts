import ICAL from 'ical.js';
import type { WallTime } from './plan.js';

/** Steps that are gone through of a rule at most: twenty years of days. */
const MOST = 7_500;
/** Rules that plan lessons; nobody meets every minute. */
const FREQUENCIES = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'];

/** The rule in its own words, or why it isn't one by which lessons can be planned. */
export function checkRule(rule: string): { readonly rule: string } | { readonly fault: string } {
  try {
    const recur = ICAL.Recur.fromString(rule);
    if (!FREQUENCIES.includes(recur.freq)) return { fault: 'It comes more often than once a day.' };
    if (recur.interval < 1) return { fault: 'It never goes on.' };
    return { rule: recur.toString() };
  } catch {
    return { fault: 'It can’t be read.' };
  }
}

/** Every week at the same time, as a rule. @param until the last day on which it may be, as `2026-12-22` */
export function weekly(until: string | null): string {
  return until ? `FREQ=WEEKLY;UNTIL=${until.replaceAll('-', '')}T235959` : 'FREQ=WEEKLY';
}

/** The rule as it is where a series ends before a time of it. */
export function endedBefore(rule: string, was: WallTime): string {
  const recur = ICAL.Recur.fromString(rule);
  const last = ICAL.Time.fromDateTimeString(`${was}:00`);
  last.addDuration(ICAL.Duration.fromSeconds(-1));
  recur.count = null;
  recur.until = last;
  return recur.toString();
}

const DAY = 86_400_000;
/** Days from one time to the next of rules that come in even steps. */
const STEPS: Readonly<Record<string, number>> = { DAILY: 1, WEEKLY: 7 };

/**
 * The first time from which a rule has to be gone through to find those after a moment: one that comes every day or
 * week is the same rule from any of its weeks on, so that a series of ten years costs no more than one of a month.
 */
function startNear(start: WallTime, recur: ICAL.Recur, from: number): WallTime {
  const step = (STEPS[recur.freq] ?? 0) * recur.interval * DAY;
  const counts = recur.count !== null || (recur.parts as { BYSETPOS?: unknown }).BYSETPOS;
  const first = Date.parse(`${start}Z`);
  // A week more than is needed: what a rule says of days may lie before its step.
  const steps = step > 0 && !counts ? Math.floor((from - 8 * DAY - first) / step) : 0;
  return steps > 0 ? new Date(first + steps * step).toISOString().slice(0, 16) : start;
}

/**
 * Times of a series, by the clock on the wall, from its first on; as many as are wanted.
 * @param wanted whether one is taken (`take`), passed over (`skip`), or beyond what is asked for (`stop`)
 * @param from before this, in ms since 1970 as if the wall were in UTC, no time is asked after
 */
export function timesOf(
  start: WallTime,
  rule: string,
  wanted: (time: WallTime) => 'take' | 'skip' | 'stop',
  from = -Infinity,
): WallTime[] {
  const times: WallTime[] = [];
  const recur = ICAL.Recur.fromString(rule);
  const first = ICAL.Time.fromDateTimeString(`${startNear(start, recur, from)}:00`);
  const walk = recur.iterator(first);
  for (let i = 0; i < MOST; i++) {
    const next = walk.next() as ICAL.Time | null;
    if (!next) break;
    const time = next.toString().slice(0, 16);
    const what = wanted(time);
    if (what === 'stop') break;
    if (what === 'take') times.push(time);
  }
  return times;
}
