import * as z from 'zod';

/** Late lines of one student of one lesson, on one of its boards, that wait for the tutor; times in ms since 1970. */
export const LateLinesShape = z.object({
  lesson: z.string(),
  person: z.string(),
  /** The student's. */
  name: z.string(),
  nameOrdinal: z.number(),
  course: z.string(),
  courseName: z.string(),
  board: z.string(),
  title: z.string(),
  openedAt: z.number(),
  closedAt: z.number().nullable(),
  count: z.number(),
  /** When the last of them came. */
  at: z.number(),
});
export type LateLinesShape = z.infer<typeof LateLinesShape>;

/** What became of the late lines of the student who asks, lesson by lesson. */
export const OwnLateLines = z.object({
  lesson: z.string(),
  courseName: z.string(),
  openedAt: z.number(),
  waiting: z.number(),
  /** Added to the page or the record, and left, since the student was told last. */
  added: z.number(),
  left: z.number(),
});
export type OwnLateLines = z.infer<typeof OwnLateLines>;

/** What was done with what a student's browser offered, by ids. */
export const LateAnswer = z.object({
  /** They wait for the tutor. */
  waiting: z.array(z.string()),
  /** They were on the board all the time. */
  kept: z.array(z.string()),
  /** They can't be taken: no lines and texts, or more than are kept of one student. */
  refused: z.array(z.string()),
});
export type LateAnswer = z.infer<typeof LateAnswer>;
