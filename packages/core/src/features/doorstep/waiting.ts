import * as z from 'zod';
import { Id } from '../../id/index.js';

/** Who waits for a course: at the door of its open lesson, or for its lesson to open. */
export const Waiting = z.object({
  course: Id,
  courseName: z.string(),
  /** The board of the open lesson at whose door they are; `null` where none is open. */
  board: Id.nullable(),
  /** Their names; `null` for somebody who hasn't said. */
  names: z.array(z.string().nullable()),
});
export type Waiting = z.infer<typeof Waiting>;
