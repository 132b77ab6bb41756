import { Id } from '@cuaderno/core/id';
import * as z from 'zod';

export const LinkWish = z.object({
  forWhom: z.string().trim().min(1, 'say for whom the link is').max(100),
  email: z.email('that is no e-mail address').max(200).nullable().default(null),
  may: z.enum(['view', 'download']),
  names: z.enum(['all', 'own']),
  /** Whose name is shown where others' aren't. */
  student: z.string().max(100).nullable().default(null),
  /** The last moment at which it opens, in ms since 1970. */
  until: z.number().int().min(0).max(8.64e15),
});
export type LinkWish = z.infer<typeof LinkWish>;

export const Opening = z.object({
  at: z.number(),
  what: z.enum(['opened', 'record', 'downloaded']),
  lesson: Id.nullable(),
  device: z.enum(['phone', 'tablet', 'computer']),
});
export type Opening = z.infer<typeof Opening>;

export const RecordLink = z.object({
  id: Id,
  token: z.string(),
  course: Id,
  lesson: Id.nullable(),
  forWhom: z.string(),
  email: z.string().nullable(),
  may: z.enum(['view', 'download']),
  names: z.enum(['all', 'own']),
  student: z.string().nullable(),
  until: z.number(),
  madeAt: z.number(),
  state: z.enum(['open', 'over', 'withdrawn']),
  /** How often it was opened. */
  count: z.number(),
  /** The latest first. */
  openings: z.array(Opening),
});
export type RecordLink = z.infer<typeof RecordLink>;

/** What a link leads to. */
export const SharedList = z.object({
  tutor: z.string(),
  course: z.string(),
  forWhom: z.string(),
  may: z.enum(['view', 'download']),
  until: z.number(),
  /** Whether it is for all records of the course. */
  all: z.boolean(),
  records: z.array(
    z.object({
      lesson: Id,
      title: z.string(),
      openedAt: z.number(),
      closedAt: z.number(),
    }),
  ),
});
export type SharedList = z.infer<typeof SharedList>;

/** A record as a link shows it. */
export const SharedRecord = z.object({
  lesson: Id,
  title: z.string(),
  openedAt: z.number(),
  closedAt: z.number(),
  /** Sizes in points. */
  pages: z.array(
    z.object({
      name: z.string(),
      width: z.number(),
      height: z.number(),
      /** The board whose pages begin with this one, where the record is of several; `null` for all others. */
      board: z.string().nullable(),
    }),
  ),
  summary: z.string(),
  until: z.string(),
  /** Names that may be shown, and how many others were there. */
  people: z.array(z.string()),
  others: z.number(),
  chat: z.array(z.object({ by: z.string(), text: z.string(), at: z.number() })),
});
export type SharedRecord = z.infer<typeof SharedRecord>;
