import type { Id } from '../id/index.js';
import { byOrder } from '../order/index.js';
import type { Rules } from '../permissions/index.js';
import type { Item } from './item.js';
import type { Page } from './page.js';
import type { Sheet } from './paper.js';

/** One document: the fold of its log. Never changed; every operation makes a new one. */
export interface Board {
  readonly id: Id;
  readonly title: string;
  /** What empty pages of this board are; `null` where they are like their neighbours. */
  readonly sheet: Sheet | null;
  /** What students may do on it, at most. */
  readonly rules: Rules;
  readonly pages: ReadonlyMap<Id, Page>;
  /** How many things were done, on whatever page, that can't be read any more, if any; see `Page.unreadable`. */
  readonly unreadable?: number | undefined;
}

export function emptyBoard(id: Id): Board {
  return { id, title: '', sheet: null, rules: {}, pages: new Map() };
}

/** Pages that are there, in their order. */
export function pagesInOrder(board: Board): Page[] {
  return [...board.pages.values()].filter((page) => !page.removed).sort(byOrder);
}

/**
 * Items that are there, in the order in which they came. What was written on a cover sheet goes when
 * that is taken away, and stays while it is only lifted.
 */
export function itemsOn(page: Page): Item[] {
  return [...page.items.values()].filter(
    (item) => !item.removed && !(item.on && page.items.get(item.on)?.removed),
  );
}
