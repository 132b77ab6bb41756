import { specOf } from '../board/index.js';
import type { Item } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import type { Change, Operation } from './index.js';

/** The operation that lays this item on a page. */
export function additionOf(item: Item, page: Id): Operation {
  if (item.kind !== 'ink') return { id: item.id, kind: 'item.add', page, item: specOf(item) };
  const { id, ink, on } = item;
  return { id, kind: 'ink.add', page, ink, ...(on ? { on } : {}) };
}

/**
 * Lays items on another page, with ids of their own: what was written on a cover sheet is written on
 * the sheet's copy. One operation for each item, in the same order.
 */
export function additionsElsewhere(items: readonly Item[], page: Id): (Change & { id: Id })[] {
  const sheets = new Map<Id, Id>();
  for (const { kind, id } of items) if (kind === 'cover') sheets.set(id, newId());
  return items.map((item) => {
    const on = item.kind === 'cover' ? null : (sheets.get(item.on ?? '') ?? null);
    const moved = item.on ? { ...item, on } : item;
    return { ...additionOf(moved, page), id: sheets.get(item.id) ?? newId() };
  });
}
