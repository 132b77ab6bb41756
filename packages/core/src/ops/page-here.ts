import { z } from 'zod';
import { pageFromSnapshot, PageSnapshot } from '../board/index.js';
import type { BoardDraft } from '../board/index.js';
import { Id } from '../id/index.js';

/*
 * What a student is told in place of an operation that is not for them to see as it is. Only the
 * server says these; nobody can send them.
 */

/** Something happened that this person is not shown. */
export const nothing = z.object({ id: Id, kind: z.literal('nothing') });

/** A page that was held back is shown, with all that is on it by now. */
export const pageHere = z.object({ id: Id, kind: z.literal('page.here'), page: PageSnapshot });

/** A page is held back from now on. */
export const pageGone = z.object({ id: Id, kind: z.literal('page.gone'), page: Id });

/** Makes the change in the draft. */
export function applyTold(
  op: z.infer<typeof nothing> | z.infer<typeof pageHere> | z.infer<typeof pageGone>,
  draft: BoardDraft,
): void {
  if (op.kind === 'page.here') draft.putPage(pageFromSnapshot(op.page));
  else if (op.kind === 'page.gone') draft.dropPage(op.page);
}
