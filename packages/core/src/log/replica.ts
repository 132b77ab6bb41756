import { BoardDraft } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { apply } from '../ops/index.js';
import type { Operation, Stamp } from '../ops/index.js';
import { fold } from './entry.js';
import type { ProjectedEntry } from './entry.js';

/** An operation of one's own that the server has not confirmed, with the stamp it is shown under. */
export interface Unconfirmed {
  readonly op: Operation;
  readonly stamp: Stamp;
}

/**
 * A browser's copy of a board: what the server has put in order, one's own unconfirmed operations,
 * and the view that comes of the two. Plain and never changed; each function makes a new one.
 */
export interface Replica {
  readonly confirmed: Board;
  /** Number of the last confirmed entry. */
  readonly seq: number;
  readonly unconfirmed: readonly Unconfirmed[];
  /** `confirmed` with `unconfirmed` on top: what is on screen. */
  readonly view: Board;
}

export function replica(
  confirmed: Board,
  seq: number,
  unconfirmed: readonly Unconfirmed[] = [],
): Replica {
  return { confirmed, seq, unconfirmed, view: overlay(confirmed, unconfirmed) };
}

/** Does one's own operation at once; it is unconfirmed until it comes back in the order of the server. */
export function predict(from: Replica, op: Operation, stamp: Stamp): Replica {
  const mine = { op, stamp };
  return { ...from, unconfirmed: [...from.unconfirmed, mine], view: overlay(from.view, [mine]) };
}

/**
 * Takes in what the server has put in order. Entries known already are passed over.
 * Returns `null` where some are missing in between: ask the server for all since `seq`.
 */
export function receive(from: Replica, entries: readonly ProjectedEntry[]): Replica | null {
  const fresh = entries.filter((entry) => entry.seq > from.seq);
  const last = fresh[fresh.length - 1];
  if (!last) return from;
  if (fresh[0]!.seq !== from.seq + 1) return null;
  const confirmed = fold(from.confirmed, fresh);
  const done = new Set(fresh.map((entry) => entry.op.id));
  const unconfirmed = from.unconfirmed.filter(({ op }) => !done.has(op.id));
  return replica(confirmed, last.seq, unconfirmed);
}

/** Takes in pages as they stand after the last confirmed entry, in place of what was known of them. */
export function fill(from: Replica, pages: readonly Page[]): Replica {
  const draft = new BoardDraft(from.confirmed);
  for (const page of pages) draft.putPage(page);
  return replica(draft.done(), from.seq, from.unconfirmed);
}

/** Takes back a unconfirmed operation that the server has refused. */
export function withdraw(from: Replica, id: Id): Replica {
  const unconfirmed = from.unconfirmed.filter(({ op }) => op.id !== id);
  return unconfirmed.length === from.unconfirmed.length
    ? from
    : replica(from.confirmed, from.seq, unconfirmed);
}

function overlay(board: Board, unconfirmed: readonly Unconfirmed[]): Board {
  if (unconfirmed.length === 0) return board;
  const draft = new BoardDraft(board);
  for (const { op, stamp } of unconfirmed) apply(op, draft, stamp);
  return draft.done();
}
