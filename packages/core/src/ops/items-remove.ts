import * as z from 'zod';
import { teaches } from '../permissions/index.js';
import { ItemsOfPage, knownItems, refuseWriting } from './items.js';
import { operationType } from './operation.js';
import { onShownPage, tombstone } from './projecting.js';

/** Erasing. What is erased stays in the log and can come back. */
export const itemsRemove = operationType({
  schema: ItemsOfPage.extend({ kind: z.literal('items.remove') }),
  apply({ page, items }, draft, { by, at }) {
    for (const id of items) {
      const item = draft.item(page, id);
      if (item && !item.removed) draft.setItem(page, { ...item, removed: { by, at } });
    }
  },
  invert({ page, items }, board, who) {
    const mine = knownItems(board, page, items).filter((item) => item.removed?.by === who);
    return mine.length > 0
      ? { kind: 'items.restore', page, items: mine.map((item) => item.id) }
      : null;
  },
  refuse({ page, items }, board, actor) {
    if (teaches(actor.role)) return null;
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    return knownItems(board, page, items).every((item) => item.by === actor.id)
      ? null
      : 'not-yours';
  },
  about: ({ page, items }) => ({ pages: [page], items }),
  changes: () => null,
  project: (op, projecting) =>
    onShownPage(op, projecting, () => {
      const items = op.items.filter((id) => !projecting.before.has(id));
      return items.length > 0 ? { ...op, items } : tombstone(op);
    }),
  redact: () => false,
  touches: ({ items }) => items,
});
