import { occurrencesOf } from '@cuaderno/core/timetable';
import type { FastifyInstance } from 'fastify';
import { DateTime } from 'luxon';
import type { Course } from '../courses/service.js';

const WEEK = 7 * 86_400_000;

/** What has been said of the weeks to come: a lesson moved, one cancelled, and a single one more. */
export async function planAhead(
  app: FastifyInstance,
  { tides, cello }: { readonly tides: Course; readonly cello: Course },
): Promise<void> {
  const now = Date.now();
  const [plan] = await app.timetable.plans({ course: cello.id });
  const [, second, third] = occurrencesOf(plan!, now, now + 5 * WEEK);
  const dayBefore = DateTime.fromISO(second!.was).minus({ days: 1 }).set({ hour: 16, minute: 0 });
  const moved = dayBefore.toFormat("yyyy-MM-dd'T'HH:mm");
  await app.timetable.change(plan!, second!.was, moved, 'Mika plays at school on Friday');
  await app.timetable.change(plan!, third!.was, null, 'Winter holidays begin');
  const [weekly] = await app.timetable.plans({ course: tides.id });
  const next = occurrencesOf(weekly!, now, now + 2 * WEEK)[0]!;
  const extra = DateTime.fromISO(next.was).plus({ days: 2 }).set({ hour: 11, minute: 0 });
  await app.timetable.make(tides.id, {
    ...{ topic: 'Spring tide at the pier', start: extra.toFormat("yyyy-MM-dd'T'HH:mm") },
    ...{ zone: weekly!.zone, minutes: 90, buffer: 10, weekly: false, until: null },
  });
}
