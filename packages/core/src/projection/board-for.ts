import type { Board, Item, Page, PageSpec } from '../board/index.js';
import type { Role } from '../permissions/index.js';

/*
 * Who is sent what. A tutor sees the whole board; a student is sent no margin, and nothing that is
 * held back. What isn't sent can't be found on their machine, whatever they try there.
 */

/** The board as this person may see it. */
export function boardFor(board: Board, role: Role): Board {
  if (role === 'tutor') return board;
  const pages = [...board.pages].filter(([, page]) => !page.held);
  return { ...board, pages: new Map(pages.map(([id, page]) => [id, shownPage(page)])) };
}

/** A page with all that students may see of it. */
export function shownPage(page: Page): Page {
  const seen = shownSpec(page);
  const items = [...page.items].filter(([, item]) => !isHeld(item));
  return items.length === page.items.size ? seen : { ...seen, items: new Map(items) };
}

/** A page without what is for its tutor alone. */
export function shownSpec<P extends PageSpec>(page: P): P {
  if (page.margin === undefined && page.held === undefined) return page;
  const seen = { ...page };
  delete seen.margin;
  delete seen.held;
  return seen;
}

export function isHeld(item: Item | undefined): boolean {
  return item !== undefined && item.kind !== 'ink' && item.held === true;
}
