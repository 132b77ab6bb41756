import { specOf } from '../board/index.js';
import type { Item } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Operation } from './index.js';

/** The operation that lays this item on a page. */
export function additionOf(item: Item, page: Id): Operation {
  return item.kind === 'ink'
    ? { id: item.id, kind: 'ink.add', page, ink: item.ink }
    : { id: item.id, kind: 'item.add', page, item: specOf(item) };
}
