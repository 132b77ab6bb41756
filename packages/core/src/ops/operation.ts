import type { z } from 'zod';
import type { Board, BoardDraft } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import type { Viewer } from '../viewers/index.js';
import type { Projection } from './projections.js';

/** What the server adds to an operation: who made it, when it was taken, in which lesson. */
export interface Stamp {
  readonly by: Id;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly lesson: Id | null;
}

/** What an operation is about, as far as that may be hidden from students. */
export interface About {
  readonly pages: readonly Id[];
  /** On the first of the pages. */
  readonly items: readonly Id[];
}

/** What a projection is made of. */
export interface Projecting {
  /** Of what it is about, what was hidden before it: see `hiddenOf`. */
  readonly before: ReadonlySet<Id>;
  /** The board after it; where it doesn't change what is hidden, any later one will do. */
  readonly after: Board;
  readonly viewer: Viewer;
}

/** Whose work is deleted, while a log is gone through from its first entry. */
export interface Redaction {
  readonly who: ReadonlySet<Id>;
  /** Items of theirs, found so far. */
  readonly items: Set<Id>;
}

/**
 * A kind of operation: all that is known of it. Each lives in a file of its own and promises:
 * - `apply` twice is the same as once, and on something that is gone does nothing;
 * - `invert` undoes what is still there to undo, of this person's work only; `null` if nothing is;
 * - `refuse` names the reason why this person may not do it now, or `null`. It never changes a thing;
 * - `about` names the pages and items that it is about and that were there before;
 * - `changes` says whether it may change what students are shown: what is hidden, or only which files they may have;
 * - `project` is what a student is told in its place: what is no more is told as an empty place, what comes back is told
 *   whole, since who came meanwhile was never sent it, and of what isn't for them a tombstone alone;
 * - `redact` says whether it holds work of those whose data is deleted: then a tombstone stands in its place. It notes what
 *   items of theirs it makes;
 * - `touches` names what it takes out or brings back, besides what it adds under its own id.
 */
export interface OperationType<Schema extends z.ZodType> {
  readonly schema: Schema;
  apply(op: z.infer<Schema>, draft: BoardDraft, stamp: Stamp): void;
  invert(op: z.infer<Schema>, board: Board, who: Id): object | null;
  refuse(op: z.infer<Schema>, board: Board, actor: Actor): RefusalCode | null;
  about(op: z.infer<Schema>): About;
  changes(op: z.infer<Schema>): 'hidden' | 'files' | null;
  project(op: z.infer<Schema>, projecting: Projecting): z.infer<Schema> | Projection;
  redact(op: z.infer<Schema>, by: Id, deletion: Redaction): boolean;
  touches(op: z.infer<Schema>): readonly Id[];
}

/** What most operations have none of. */
export const NOTHING_ABOUT: About = { pages: [], items: [] };

/** Only there to let each file state its types once. */
export function operationType<Schema extends z.ZodType>(
  type: OperationType<Schema>,
): OperationType<Schema> {
  return type;
}
