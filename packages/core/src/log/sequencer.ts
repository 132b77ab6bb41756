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
  /** It was taken before, at this place: sent again after a break, say. */
  | { readonly kind: 'known'; readonly seq: number }
  | { readonly kind: 'refused'; readonly code: RefusalCode };

/**
 * The one order of a board's operations. It gives each its place, once, and refuses what a person
 * may not do. Nothing here is durable yet: whoever calls it stores the entries before anyone is
 * told.
 */
export class Sequencer {
  private readonly draft: BoardDraft;

  /** @param known where each operation taken so far has its place */
  constructor(
    board: Board,
    private last: number,
    private readonly known: Map<Id, number> = new Map(),
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

  offer(op: Operation, actor: Actor, at: number, lesson: Id | null): Verdict {
    const seq = this.known.get(op.id);
    if (seq !== undefined) return { kind: 'known', seq };
    const code = refuse(op, this.draft.current, actor);
    if (code) return { kind: 'refused', code };
    const entry: Entry = { seq: ++this.last, by: actor.id, at, lesson, op };
    this.known.set(op.id, entry.seq);
    apply(op, this.draft, entry);
    return { kind: 'taken', entry };
  }
}
