import type { Change } from './index.js';

/** Items that one operation names at most, where somebody makes it; and pages that it lays in. */
const ITEMS = 1000;
const PAGES = 100;

function parts<T>(list: readonly T[], most: number): T[][] {
  const count = Math.ceil(list.length / most);
  return Array.from({ length: count }, (_, i) => list.slice(i * most, (i + 1) * most));
}

/**
 * A change as changes that each fit into a message, in their order; itself where it fits. What a message may hold is
 * less than what a page does: see `message-limits.ts`.
 */
export function inParts(change: Change): Change[] {
  switch (change.kind) {
    case 'items.remove':
    case 'items.restore':
      return change.items.length <= ITEMS
        ? [change]
        : parts(change.items, ITEMS).map((items) => ({ ...change, items }));
    case 'pages.add':
      return change.pages.length <= PAGES
        ? [change]
        : parts(change.pages, PAGES).map((pages) => ({ ...change, pages }));
    default:
      return [change];
  }
}
