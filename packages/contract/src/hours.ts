import { Id } from '@cuaderno/core/id';
import * as z from 'zod';

export const Correction = z.object({ minutes: z.number(), why: z.string(), at: z.number() });
export type Correction = z.infer<typeof Correction>;

/** A lesson as it counts. Moments in ms since 1970, lengths in minutes. */
export const HourRow = z.object({
  lesson: Id,
  course: Id,
  courseName: z.string(),
  openedAt: z.number(),
  closedAt: z.number(),
  /** From opening to closing. */
  measured: z.number(),
  /** As it counts: measured, or as it was corrected last. */
  minutes: z.number(),
  /** In the order in which they were made. */
  corrections: z.array(Correction),
  /** Who was there. */
  students: z.array(z.string()),
});
export type HourRow = z.infer<typeof HourRow>;
