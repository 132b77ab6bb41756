import type { Id } from '../id/index.js';
import { pagesInOrder } from './board.js';
import type { Board } from './board.js';

/**
 * The number of each page as the class counts them, who are shown no page that is hidden. Such a page has, in
 * brackets, the number that it will have once it is shown: tutor and students mean the same page by “page 4”.
 */
export function pageNumbers(board: Board): ReadonlyMap<Id, string> {
  let shown = 0;
  /** Pages hidden since the last that is shown. */
  let hidden = 0;
  return new Map(
    pagesInOrder(board).map((page) => {
      if (page.hidden) return [page.id, `(${shown + ++hidden})`];
      hidden = 0;
      return [page.id, String(++shown)];
    }),
  );
}
