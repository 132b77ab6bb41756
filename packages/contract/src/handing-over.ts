import { Id } from '@cuaderno/core/id';
import * as z from 'zod';

/** A student of a course to whom something can be handed: somebody who was let in, by what their browser keeps. */
export const Receiver = z.object({
  id: z.string(),
  name: z.string(),
  /** Whether they are in the open lesson of the course. */
  here: z.boolean(),
});
export type Receiver = z.infer<typeof Receiver>;

/** What was handed over, as its tutor sees it. */
export const HandOverShape = z.object({
  id: Id,
  asset: Id,
  fileName: z.string(),
  /** To whom; `null` where all students of the course may have it. */
  to: z.string().nullable(),
  at: z.number(),
  /** Who has fetched it, the first first. */
  fetched: z.array(z.object({ name: z.string(), at: z.number() })),
});
export type HandOverShape = z.infer<typeof HandOverShape>;

/** What was handed to a student, as they see it. */
export const HandedFile = z.object({
  id: Id,
  name: z.string(),
  kind: z.enum(['pdf', 'slides', 'board', 'picture', 'sound', 'film']),
  bytes: z.number(),
  course: z.string(),
  at: z.number(),
  /** When they fetched it first; `null` where they haven’t. */
  fetchedAt: z.number().nullable(),
});
export type HandedFile = z.infer<typeof HandedFile>;
