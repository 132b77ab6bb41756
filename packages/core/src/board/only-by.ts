import type { Id } from '../id/index.js';
import type { Board } from './board.js';
import { isMaterial } from './item.js';
import type { Page } from './page.js';

/** Pages never change, so what is left of one is found once. */
const found = new WeakMap<Page, Map<Id, Page>>();

/** A board with one person's ink alone; material stays. */
export function onlyBy(board: Board, who: Id): Board {
  const pages = [...board.pages].map(([id, page]) => [id, pageBy(page, who)] as const);
  return { ...board, pages: new Map(pages) };
}

function pageBy(page: Page, who: Id): Page {
  const known = found.get(page) ?? new Map<Id, Page>();
  let left = known.get(who);
  if (!left) {
    const items = [...page.items].filter(
      ([, item]) => item.kind === 'cover' || isMaterial(item) || item.by === who,
    );
    left = { ...page, items: new Map(items) };
    known.set(who, left);
    found.set(page, known);
  }
  return left;
}
