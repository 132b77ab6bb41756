import type { Id } from '../id/index.js';
import type { Board } from './board.js';
import { isMaterial } from './item.js';
import type { Page } from './page.js';

/** Pages never change, so what is left of one is found once. */
const found = new WeakMap<Page, Map<string, Page>>();

/** A board with the ink of some people alone, of one mostly; material stays. */
export function onlyBy(board: Board, ...who: readonly Id[]): Board {
  const pages = [...board.pages].map(([id, page]) => [id, pageBy(page, who)] as const);
  return { ...board, pages: new Map(pages) };
}

function pageBy(page: Page, who: readonly Id[]): Page {
  const known = found.get(page) ?? new Map<string, Page>();
  const key = who.join(' ');
  let left = known.get(key);
  if (!left) {
    const items = [...page.items].filter(
      ([, item]) => item.kind === 'cover' || isMaterial(item) || who.includes(item.by),
    );
    left = { ...page, items: new Map(items) };
    known.set(key, left);
    found.set(page, known);
  }
  return left;
}
