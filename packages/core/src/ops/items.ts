import * as z from 'zod';
import type { Board, Item, Page } from '../board/index.js';
import { Id, ids } from '../id/index.js';
import { mayWriteOn, teaches } from '../permissions/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';

/** Items of one page that an operation names: at most as many as a full page holds. */
export const ItemsOfPage = z.strictObject({
  id: Id,
  page: Id,
  items: ids(5000),
});

/** Those of the named items that are known, whether there or removed. */
export function knownItems(board: Board, page: Id, ids: readonly Id[]): Item[] {
  const items = board.pages.get(page)?.items;
  return ids.flatMap((id) => items?.get(id) ?? []);
}

/** The page, as far as this person knows of it: one that is hidden isn't there for a student. */
export function pageFor(board: Board, id: Id, actor: Actor): Page | undefined {
  const page = board.pages.get(id);
  return page?.hidden && !teaches(actor.role) ? undefined : page;
}

/** Why this person may not write on that page just now, or `null`. */
export function refuseWriting(board: Board, id: Id, actor: Actor): RefusalCode | null {
  const page = pageFor(board, id, actor);
  if (!page) return 'no-such-page';
  if (mayWriteOn(actor, board, page)) return null;
  // A pen in the hand, but none for this page: who is told "ask for a pen" would ask in vain.
  return actor.trust === 'view' ? 'no-pen' : 'pens-in';
}
