import { USUAL } from '@cuaderno/core/timetable';
import { DateTime } from 'luxon';
import type { PlanWish } from '@cuaderno/contract/timetable';

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

/** A weekly slot as it is planned: from its next lesson on, with the usual time kept free after it. */
export function weeklyWish(slot: WeeklySlot, now: number): PlanWish {
  const { minutes, zone } = slot;
  const first = DateTime.fromMillis(nextLesson(slot, now), { zone });
  return {
    ...{ topic: '', start: first.toFormat("yyyy-MM-dd'T'HH:mm"), zone, minutes },
    ...{ buffer: USUAL.buffer, weekly: true, until: null },
  };
}
