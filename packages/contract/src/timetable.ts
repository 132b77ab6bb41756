import { Id } from '@cuaderno/core/id';
import { WallTime } from '@cuaderno/core/timetable';
import * as z from 'zod';
import { LessonMinutes } from './courses.js';
import { ZoneName } from './time-zone.js';

/** What is planned: once, or every week until a day if one is named. */
export const PlanWish = z.object({
  topic: z.string().trim().max(120).default(''),
  start: WallTime,
  zone: ZoneName,
  minutes: LessonMinutes,
  /** Kept free after it, in minutes. */
  buffer: z
    .number('Write how many minutes are free after it: 0 for none.')
    .int('Write whole minutes.')
    .min(0, 'Write how many minutes are free after it: 0 for none.')
    .max(240, 'At most 240 minutes are kept free.'),
  weekly: z.boolean(),
  /** The last day on which it may be. */
  until: z.iso.date().nullable().default(null),
});
export type PlanWish = z.infer<typeof PlanWish>;

/** A lesson that is planned. Moments in ms since 1970. */
export const Planned = z.object({
  plan: Id,
  course: Id,
  courseName: z.string(),
  topic: z.string(),
  /** By which it is known among those of its series. */
  was: WallTime,
  /** As the clock of its zone shows it. */
  wall: WallTime,
  zone: z.string(),
  at: z.number(),
  until: z.number(),
  /** Kept free after it, in minutes. */
  buffer: z.number(),
  /** Whether it is one of a series. */
  series: z.boolean(),
  state: z.enum(['planned', 'moved', 'cancelled']),
  why: z.string(),
  /** The lesson that took place then, if one did. */
  heldAs: Id.nullable(),
});
export type Planned = z.infer<typeof Planned>;

/** A lesson that took place: its record is there. Moments in ms since 1970. */
export const HeldLesson = z.object({
  lesson: Id,
  course: Id,
  courseName: z.string(),
  at: z.number(),
  until: z.number(),
});
export type HeldLesson = z.infer<typeof HeldLesson>;

export const ClashShape = z.object({
  first: z.object({ plan: Id, was: WallTime }),
  second: z.object({ plan: Id, was: WallTime }),
  how: z.enum(['overlap', 'tight']),
});
export type ClashShape = z.infer<typeof ClashShape>;
