import * as z from 'zod';
import { ItemSnapshot, pageFromSnapshot, PageSnapshot, PageSpec } from '../board/index.js';
import type { BoardDraft, Item } from '../board/index.js';
import { Id } from '../id/index.js';

/*
 * What a student is told in place of an operation that is not for them to see as it is. Only the
 * server says these; nobody can send them.
 */

/** Told operations, each for one thing that can happen to what isn't for everyone. */
export const PROJECTIONS = [
  /** Something happened that this person is not shown. */
  z.object({ id: Id, kind: z.literal('tombstone') }),
  /** These pages are there from now on, with all that is on them by now; those are not there any more. */
  z.object({
    id: Id,
    kind: z.literal('pages.now'),
    here: z.array(PageSnapshot),
    gone: z.array(Id),
  }),
  /** These items are as they are from now on, in the places they have; those are not there any more. */
  z.object({
    id: Id,
    kind: z.literal('items.now'),
    page: Id,
    here: z.array(ItemSnapshot),
    gone: z.array(Id),
  }),
  /**
   * Something was done here that can't be read any more: its bytes on the disk are damaged.
   * @see `LogStore`, which puts it there
   */
  z.object({
    id: Id,
    kind: z.literal('unreadable'),
    /** The page that it was about; `null` where that isn't known either. */
    page: Id.nullable(),
    /** What kind of operation it was, if that is known. */
    was: z.string().max(20).nullable(),
    /** Stand in for pages that it may have laid in, since there are lines on them. */
    standIns: z.array(PageSpec).optional(),
  }),
] as const;
export type Projection = z.infer<(typeof PROJECTIONS)[number]>;

const KINDS: readonly string[] = ['tombstone', 'pages.now', 'items.now', 'unreadable'];

export function isProjection<Op extends { readonly kind: string }>(op: Op): op is Op & Projection {
  return KINDS.includes(op.kind);
}

/** Makes the change in the draft. */
export function applyProjection(op: Projection, draft: BoardDraft): void {
  switch (op.kind) {
    case 'tombstone':
      return;
    case 'pages.now':
      for (const page of op.here) draft.putPage(pageFromSnapshot(page));
      for (const id of op.gone) draft.dropPage(id);
      return;
    case 'items.now':
      if (!draft.page(op.page)) return;
      for (const item of op.here) draft.setItem(op.page, item as Item);
      for (const id of op.gone) if (draft.item(op.page, id)) draft.dropItem(op.page, id);
      return;
    case 'unreadable':
      for (const page of op.standIns ?? [])
        if (!draft.page(page.id)) draft.addPage({ ...page, unreadable: 1 });
      draft.noteUnreadable(op.page);
  }
}
