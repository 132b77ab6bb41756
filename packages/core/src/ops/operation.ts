import type { z } from 'zod';
import type { Board, BoardDraft } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';

/** What the server adds to an operation: who made it, when it was taken, in which lesson. */
export interface Stamp {
  readonly by: Id;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly lesson: Id | null;
}

/**
 * A kind of operation. Each lives in a file of its own and promises:
 * - `apply` twice is the same as once, and on something that is gone does nothing;
 * - `invert` undoes what is still there to undo, of this person's work only; `null` if nothing is;
 * - `refuse` names the reason why this person may not do it now, or `null`. It never changes a thing.
 */
export interface OperationType<Schema extends z.ZodType> {
  readonly schema: Schema;
  apply(op: z.infer<Schema>, draft: BoardDraft, stamp: Stamp): void;
  invert(op: z.infer<Schema>, board: Board, who: Id): object | null;
  refuse(op: z.infer<Schema>, board: Board, actor: Actor): RefusalCode | null;
}

/** Only there to let each file state its types once. */
export function operationType<Schema extends z.ZodType>(
  type: OperationType<Schema>,
): OperationType<Schema> {
  return type;
}
