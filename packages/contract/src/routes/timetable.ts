import { Id } from '@cuaderno/core/id';
import { WallTime } from '@cuaderno/core/timetable';
import * as z from 'zod';
import { route } from '../route.js';
import { ZoneName } from '../time-zone.js';
import { ClashShape, HeldLesson, Planned, PlanWish } from '../timetable.js';

const Moment = z.coerce.number().int().min(0).max(8.64e15);

export const readTimetable = route({
  method: 'GET',
  path: '/timetable',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Lessons between two moments, and which get in each other’s way',
  query: z.object({ from: Moment, to: Moment }),
  answers: {
    200: z.object({
      lessons: z.array(Planned),
      clashes: z.array(ClashShape),
      held: z.array(HeldLesson),
      /** By whose clock the tutor wishes to see it; `null` for that of each machine. */
      zone: ZoneName.nullable(),
    }),
  },
});

export const planLesson = route({
  method: 'POST',
  path: '/courses/:course/plans',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Plan lessons of a course: one, or one every week',
  params: z.object({ course: Id }),
  body: PlanWish,
  answers: { 201: z.object({ plan: Id }) },
});

export const changeDate = route({
  method: 'POST',
  path: '/plans/:plan/change',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Move one date of a plan, or cancel it',
  params: z.object({ plan: Id }),
  body: z.object({
    was: WallTime,
    /** When it is instead; `null` where it is cancelled. */
    now: WallTime.nullable(),
    why: z.string().trim().max(300).default(''),
  }),
  answers: { 204: z.null() },
});

export const moveSeries = route({
  method: 'POST',
  path: '/plans/:plan/move',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Move one date of a series and all after it; a single lesson by itself',
  params: z.object({ plan: Id }),
  body: z.object({ was: WallTime, now: WallTime }),
  answers: { 200: z.object({ plan: Id }) },
});

export const restoreDate = route({
  method: 'POST',
  path: '/plans/:plan/restore',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Have a date as it was planned',
  params: z.object({ plan: Id }),
  body: z.object({ was: WallTime }),
  answers: { 204: z.null() },
});

export const endPlan = route({
  method: 'POST',
  path: '/plans/:plan/end',
  who: 'tutor',
  tag: 'timetable',
  summary: 'End a series before one of its dates, or take a single lesson out',
  params: z.object({ plan: Id }),
  body: z.object({ was: WallTime }),
  answers: { 204: z.null() },
});

export const downloadTimetable = route({
  method: 'GET',
  path: '/timetable.ics',
  who: 'tutor',
  tag: 'timetable',
  summary: 'The timetable as iCalendar (RFC 5545)',
  answers: 'bytes',
});

export const importCalendar = route({
  method: 'POST',
  path: '/courses/:course/plans/import',
  who: 'tutor',
  tag: 'timetable',
  summary: 'Plan what a calendar has (iCalendar, the body) as lessons of a course',
  consumes: ['text/calendar'],
  params: z.object({ course: Id }),
  query: z.object({ zone: ZoneName }),
  answers: {
    200: z.object({
      made: z.number(),
      skipped: z.array(z.object({ summary: z.string(), why: z.string() })),
    }),
  },
});
