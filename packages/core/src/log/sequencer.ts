import { BoardDraft } from '../board/index.js';
import type { Board } from '../board/index.js';
import type { Id } from '../id/index.js';
import { apply, refuse } from '../ops/index.js';
import type { Operation } from '../ops/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import type { Entry } from './entry.js';

/** What the server says to an operation. */
export type Verdict =
  | { readonly kind: 'taken'; readonly entry: Entry }
  /** An operation of theirs with this id was taken before, at this place: sent again after a break, say. */
  | { readonly kind: 'known'; readonly seq: number }
  | { readonly kind: 'refused'; readonly code: RefusalCode };

/** Where an operation that was taken has its place, and whose it is. */
export interface KnownOperation {
  readonly seq: number;
  readonly by: Id;
}

/**
 * The one order of a board's operations. It gives each its place, once, and refuses what a person
 * may not do. Nothing here is durable yet: the caller stores the entries before anyone is
 * told.
 */
export class Sequencer {
  private readonly draft: BoardDraft;

  /** @param known all operations taken so far, by their ids */
  constructor(
    board: Board,
    private last: number,
    private readonly known: Map<Id, KnownOperation> = new Map(),
  ) {
    this.draft = new BoardDraft(board);
  }

  get seq(): number {
    return this.last;
  }

  get board(): Board {
    return this.draft.done();
  }

  /** The board as it is now, to look at only until the next offer: nothing is copied for it. */
  get current(): Board {
    return this.draft.current;
  }

  /** Whether somebody made an operation with this id. */
  knows(id: Id): boolean {
    return this.known.has(id);
  }

  offer(op: Operation, actor: Actor, at: number, lesson: Id | null): Verdict {
    const known = this.known.get(op.id);
    // An id is bound to who used it first: nobody else is told that theirs is kept.
    if (known)
      return known.by === actor.id
        ? { kind: 'known', seq: known.seq }
        : { kind: 'refused', code: 'id-taken' };
    const code = refuse(op, this.draft.current, actor);
    if (code) return { kind: 'refused', code };
    const entry: Entry = { seq: ++this.last, by: actor.id, at, lesson, op };
    this.known.set(op.id, { seq: entry.seq, by: entry.by });
    apply(op, this.draft, entry);
    return { kind: 'taken', entry };
  }
}
