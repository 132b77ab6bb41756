import * as z from 'zod';
import { ItemsOfPage, knownItems, refuseWriting } from './items.js';
import { operationType } from './operation.js';
import type { Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { itemsNow, onShownPage } from './projecting.js';

/** Brings back what the same person had erased. What someone else erased stays erased. */
export const itemsRestore = operationType({
  schema: ItemsOfPage.extend({ kind: z.literal('items.restore') }),
  apply({ page, items }, draft, { by }) {
    for (const id of items) {
      const item = draft.item(page, id);
      if (item?.removed?.by === by) draft.setItem(page, { ...item, removed: null });
    }
  },
  invert({ page, items }, board) {
    const there = knownItems(board, page, items).filter((item) => !item.removed);
    return there.length > 0
      ? { kind: 'items.remove', page, items: there.map((item) => item.id) }
      : null;
  },
  refuse({ page, items }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    return knownItems(board, page, items).every(
      (item) => !item.removed || item.removed.by === actor.id,
    )
      ? null
      : 'not-yours';
  },
  about: ({ page, items }) => ({ pages: [page], items }),
  changes: () => null,
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) =>
      itemsNow(op, page, projecting.viewer, [...op.items, ...writtenOn(op.items, page)]),
    ),
  redact: () => false,
  touches: ({ items }) => items,
});

/** All that was written on these cover sheets: it comes back with them. */
function writtenOn(sheets: readonly Id[], page: Page): Id[] {
  const covers = sheets.filter((id) => page.items.get(id)?.kind === 'cover');
  if (covers.length === 0) return [];
  return [...page.items.values()].filter(({ on }) => on && covers.includes(on)).map(({ id }) => id);
}
