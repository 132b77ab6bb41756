import { DateTime } from 'luxon';

/** When a course meets every week. */
export interface WeeklySlot {
  /** 1 is Monday (ISO 8601) */
  readonly weekday: number;
  /** `HH:MM` by the clock on the wall in `zone` */
  readonly startsAt: string;
  readonly minutes: number;
  /** IANA time zone */
  readonly zone: string;
}

/**
 * Start of the lesson that comes next, or is going on, in ms since 1970. By the wall clock of its
 * zone: half past four stays half past four when the clocks change.
 */
export function nextLesson({ weekday, startsAt, minutes, zone }: WeeklySlot, now: number): number {
  const here = DateTime.fromMillis(now, { zone });
  const [hour, minute] = startsAt.split(':').map(Number) as [number, number];
  for (let days = 0; ; days++) {
    const day = here.plus({ days });
    if (day.weekday !== weekday) continue;
    const start = day.set({ hour, minute, second: 0, millisecond: 0 });
    if (start.plus({ minutes }).toMillis() > now) return start.toMillis();
  }
}

/** How long before its time a lesson is opened at the earliest to be that one, in ms. */
const EARLY = 3_600_000;

/** When a lesson that is opened now is to end, in ms since 1970; `null` for one out of its time. */
export function plannedEnd(slot: WeeklySlot, now: number): number | null {
  const start = nextLesson(slot, now);
  return start - now <= EARLY ? start + slot.minutes * 60_000 : null;
}
