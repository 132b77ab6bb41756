import type { Board } from '../board/index.js';
import { BoardDraft } from '../board/index.js';
import { apply } from '../ops/index.js';
import type { Id } from '../id/index.js';
import type { Operation, Stamp, ProjectedOperation } from '../ops/index.js';

/** An operation in its place in the log. The first of a board has `seq` 1; there are no gaps. */
export interface Entry<Op extends ProjectedOperation = Operation> extends Stamp {
  readonly seq: number;
  readonly op: Op;
}

/** What stands in a log where something was taken out of it: see `takeOut`. */
export interface Tombstone {
  readonly id: Id;
  readonly kind: 'tombstone';
}

/** What stands in a log where its bytes can't be read any more. */
export type Unreadable = Extract<ProjectedOperation, { kind: 'unreadable' }>;

/** An entry as it is kept. */
export type KeptEntry = Entry<Operation | Tombstone | Unreadable>;

/** Whether it is what somebody did, and not what stands in its place. */
export function isOperation(op: KeptEntry['op']): op is Operation {
  return op.kind !== 'tombstone' && op.kind !== 'unreadable';
}

export function isWhole(entry: KeptEntry): entry is Entry {
  return isOperation(entry.op);
}

/** An entry as it is sent to someone. */
export type ProjectedEntry = Entry<ProjectedOperation>;

/** The board after these entries. State is the fold of the log, and nothing else. */
export function fold(board: Board, entries: Iterable<ProjectedEntry>): Board {
  const draft = new BoardDraft(board);
  for (const entry of entries) apply(entry.op, draft, entry);
  return draft.done();
}
