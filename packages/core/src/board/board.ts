import type { Id } from '../id/index.js';
import { byOrder } from '../order/index.js';
import type { Rules } from '../permissions/index.js';
import { isMaterial } from './item.js';
import type { Item, ThingItem } from './item.js';
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
}

export function emptyBoard(id: Id): Board {
  return { id, title: '', sheet: null, rules: {}, pages: new Map() };
}

/** Pages that are there, in their order. */
export function pagesInOrder(board: Board): Page[] {
  return [...board.pages.values()].filter((page) => !page.removed).sort(byOrder);
}

/** Items that are there, in the order in which they came. */
export function itemsOn(page: Page): Item[] {
  return [...page.items.values()].filter((item) => !item.removed);
}

/** Material that is there, from the lowest to the highest. */
export function materialOn(page: Page): ThingItem[] {
  const things: ThingItem[] = [];
  for (const item of page.items.values()) if (!item.removed && isMaterial(item)) things.push(item);
  return things.sort(byOrder);
}

/** What lies over the material, in the order in which it came: ink, and what was written with it. */
export function inkOn(page: Page): Item[] {
  return itemsOn(page).filter((item) => !isMaterial(item));
}
