import { z } from 'zod';
import { ItemSnapshot, pageFromSnapshot, PageSnapshot } from '../board/index.js';
import type { BoardDraft, Item } from '../board/index.js';
import { Id } from '../id/index.js';

/*
 * What a student is told in place of an operation that is not for them to see as it is. Only the
 * server says these; nobody can send them.
 */

/** Told operations, each for one thing that can happen to what is held back. */
export const TOLD = [
  /** Something happened that this person is not shown. */
  z.object({ id: Id, kind: z.literal('nothing') }),
  /** A page that was held back is shown, with all that is on it by now. */
  z.object({ id: Id, kind: z.literal('page.here'), page: PageSnapshot }),
  /** A page is held back from now on. */
  z.object({ id: Id, kind: z.literal('page.gone'), page: Id }),
  /** An item that was held back is shown. */
  z.object({ id: Id, kind: z.literal('item.here'), page: Id, item: ItemSnapshot }),
  /** An item is held back from now on. */
  z.object({ id: Id, kind: z.literal('item.gone'), page: Id, item: Id }),
] as const;

type Told = z.infer<(typeof TOLD)[number]>;

const KINDS: readonly string[] = ['nothing', 'page.here', 'page.gone', 'item.here', 'item.gone'];

export function isTold<Op extends { readonly kind: string }>(op: Op): op is Op & Told {
  return KINDS.includes(op.kind);
}

/** Makes the change in the draft. */
export function applyTold(op: Told, draft: BoardDraft): void {
  switch (op.kind) {
    case 'nothing':
      return;
    case 'page.here':
      return draft.putPage(pageFromSnapshot(op.page));
    case 'page.gone':
      return draft.dropPage(op.page);
    case 'item.here':
      if (draft.page(op.page)) draft.setItem(op.page, op.item as Item);
      return;
    case 'item.gone':
      if (draft.item(op.page, op.item)) draft.dropItem(op.page, op.item);
  }
}
