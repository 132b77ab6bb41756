import type { Board, Page, PageSpec } from '../board/index.js';
import type { Role } from '../permissions/index.js';

/*
 * Who is sent what. A tutor sees the whole board; a student is sent no margin, and nothing of a page
 * that is held back. What isn't sent can't be found on their machine, whatever they try there.
 */

/** The board as this person may see it. */
export function boardFor(board: Board, role: Role): Board {
  if (role === 'tutor') return board;
  const pages = [...board.pages].filter(([, page]) => !page.held);
  return { ...board, pages: new Map(pages.map(([id, page]) => [id, pageFor(page)])) };
}

/** A page as students may see it: without what is for its tutor alone. */
export function pageFor<P extends Page | PageSpec>(page: P): P {
  if (page.margin === undefined && page.held === undefined) return page;
  const seen = { ...page };
  delete seen.margin;
  delete seen.held;
  return seen;
}
