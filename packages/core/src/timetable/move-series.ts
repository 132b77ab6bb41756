import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import type { Plan, WallTime } from './plan.js';
import { endedBefore, timesOf } from './rule.js';

/** The time on the wall at a moment. @param at ms since 1970 @param zone IANA time zone */
export function wallTimeOf(at: number, zone: string): WallTime {
  return DateTime.fromMillis(at, { zone }).toFormat("yyyy-MM-dd'T'HH:mm");
}

/** A series that was moved from one of its dates on. */
export interface MovedSeries {
  /** The rule of what stays before that date; `null` where nothing does. */
  readonly before: string | null;
  /** What comes from then on. */
  readonly after: Pick<Plan, 'start' | 'rule' | 'changes'>;
}

/**
 * A date of a series and all after it at another time: as far apart as before, and as many. Dates that are cancelled stay
 * so; those that have a time of their own keep it. Returns `null` for a rule that says itself on which days it comes, as one
 * from a calendar may: from another day on it would be another rule.
 */
export function moveSeries(plan: Plan, was: WallTime, now: WallTime): MovedSeries | null {
  if (plan.rule === null)
    return { before: null, after: { start: now, rule: null, changes: plan.changes } };
  const recur = ICAL.Recur.fromString(plan.rule);
  const days = recur.parts as { BYDAY?: unknown[] };
  // Every week on the day on which it begins: that is the same without.
  if (recur.freq === 'WEEKLY' && days.BYDAY?.length === 1) delete days.BYDAY;
  if (Object.keys(days).length > 0) return null;
  const by = minutesOf(now) - minutesOf(was);
  const shift = (time: WallTime): WallTime => wallAt(minutesOf(time) + by);
  if (recur.until)
    recur.until = ICAL.Time.fromDateTimeString(shiftedEnd(recur.until, daysBetween(was, now)));
  if (recur.count !== null && recur.count !== undefined)
    recur.count -= timesOf(plan.start, plan.rule, (time) => (time < was ? 'take' : 'stop')).length;
  const later = plan.changes.filter((change) => change.was >= was);
  return {
    before: was <= plan.start ? null : endedBefore(plan.rule, was),
    after: {
      start: now,
      rule: recur.toString(),
      changes: later.map((change) => ({ ...change, was: shift(change.was) })),
    },
  };
}

const MINUTE = 60_000;
const DAY = 86_400_000;

/** Minutes of a clock on the wall that is never put forward or back. */
function minutesOf(time: WallTime): number {
  return Date.parse(`${time}Z`) / MINUTE;
}

function wallAt(minutes: number): WallTime {
  return new Date(minutes * MINUTE).toISOString().slice(0, 16);
}

/** The end of a series so many days later: its last day counts as a whole. */
function shiftedEnd(until: ICAL.Time, days: number): string {
  const end = Date.parse(`${until.toString().slice(0, 10)}T23:59:59Z`);
  return new Date(end + days * DAY).toISOString().slice(0, 19);
}

function daysBetween(from: WallTime, to: WallTime): number {
  return (Date.parse(to.slice(0, 10)) - Date.parse(from.slice(0, 10))) / DAY;
}
