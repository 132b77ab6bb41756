import { Id } from '@cuaderno/core/id';
import { Role } from '@cuaderno/core/permissions';
import * as z from 'zod';

/** Somebody who wrote on a board: `by` of what is theirs. */
export const BoardWriter = z.object({
  id: Id,
  name: z.string().min(1).max(200),
  /** Which of those of that name: the first is 1. */
  nameOrdinal: z.number().int().min(1).max(1000),
  role: Role,
});
export type BoardWriter = z.infer<typeof BoardWriter>;
