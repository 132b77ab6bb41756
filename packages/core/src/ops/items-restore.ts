import * as z from 'zod';
import { ItemsOfPage, knownItems, refuseWriting } from './items.js';
import { operationType } from './operation.js';

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
});
