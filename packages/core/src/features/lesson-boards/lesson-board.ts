import * as z from 'zod';
import { Id } from '../../id/index.js';

/** Boards of one lesson at most: each keeps its log in the server's memory while somebody has it open. */
export const MAX_LESSON_BOARDS = 40;

/** A board of a lesson. */
export const LessonBoard = z.object({
  id: Id,
  title: z.string(),
  /** Whether the class has it; `false` for one that was taken back from them. Students are told only of those they have. */
  shown: z.boolean(),
});
export type LessonBoard = z.infer<typeof LessonBoard>;
