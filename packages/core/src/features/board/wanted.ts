import * as z from 'zod';
import { Id } from '../../id/index.js';

/** Boards that one window has open at once at most. */
export const MAX_BOARDS = 8;

/** A board that a window wants to be told of from now on. */
export const BoardWanted = z.strictObject({
  /** `null` for the one to begin on: where the one who leads the lesson is. */
  board: Id.nullable(),
  /** Last entry of it that this browser has, or -1 for none: then it is sent as it is. */
  since: z.number().int().min(-1),
});
export type BoardWanted = z.infer<typeof BoardWanted>;

/** Stands for a board that is open in what is told all day: an id in each line would be a twentieth of it. */
export const BoardNumber = z.number().int().min(0);
