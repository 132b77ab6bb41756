import { DoorRule, GivenRole, Rules } from '@cuaderno/core/permissions';
import * as z from 'zod';
import { ZoneName } from './time-zone.js';

/** How long a lesson is, in minutes. */
export const LessonMinutes = z
  .number('Write how many minutes a lesson has.')
  .int('Write whole minutes.')
  .min(5, 'A lesson has at least 5 minutes.')
  .max(600, 'A lesson has at most 600 minutes.');

export const Slot = z.object({
  weekday: z.number().int().min(1).max(7),
  startsAt: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Please enter a time such as 16:30.'),
  minutes: LessonMinutes,
  zone: ZoneName,
});
export type Slot = z.infer<typeof Slot>;

/** A title or name in any script, without characters nobody sees. */
export const Title = z
  .string()
  .max(2000, 'That name is too long. Use at most 120 letters.')
  .transform((text) =>
    text
      .normalize('NFC')
      .replace(/[\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim(),
  )
  .refine((text) => text.length > 0, 'Please write a name.')
  .refine((text) => [...text].length <= 120, 'That name is too long. Use at most 120 letters.');

export const BoardShape = z.object({
  id: z.string(),
  course: z.string(),
  title: z.string(),
  createdAt: z.number(),
});
export type BoardShape = z.infer<typeof BoardShape>;

export const CourseShape = z.object({
  id: z.string(),
  name: z.string(),
  linkToken: z.string(),
  joinCode: z.string(),
  door: DoorRule,
  rules: Rules,
  retiredAt: z.number().nullable(),
  /** The next lesson that is planned, from when to when, in ms since 1970. */
  nextAt: z.number().nullable(),
  nextUntil: z.number().nullable(),
  /** The lesson that is open, if one is. */
  lesson: z.object({ id: z.string(), board: z.string() }).nullable(),
});
export type CourseShape = z.infer<typeof CourseShape>;

export const GuestLinkShape = z.object({
  id: z.string(),
  token: z.string(),
  guest: z.string(),
  /** What they are in the lesson that they come to. */
  role: GivenRole,
  madeAt: z.number(),
  /** Whether somebody came by it already. */
  used: z.boolean(),
});
export type GuestLinkShape = z.infer<typeof GuestLinkShape>;

/**
 * How many annotations of a PDF can be written on like ink, how many comments came on slips, how many of what is seen
 * stay part of their pages, and how many attached files stay in the file as it came.
 */
export const ImportedAnnotations = z.object({
  ...{ count: z.number(), comments: z.number() },
  ...{ stayed: z.number(), attached: z.number() },
});
export type ImportedAnnotations = z.infer<typeof ImportedAnnotations>;
