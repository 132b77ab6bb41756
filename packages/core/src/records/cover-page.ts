import { itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, Page } from '../board/index.js';

/**
 * The page that stands for a record in lists: the one with most of what people wrote, the earlier of two with as much,
 * and the first where nobody wrote anything; `undefined` for a board without pages.
 */
export function coverPage(board: Board): Page | undefined {
  let [cover] = pagesInOrder(board);
  let most = 0;
  for (const page of pagesInOrder(board)) {
    const written = itemsOn(page).filter((item) => item.kind === 'ink' || item.layer === 'ink');
    if (written.length <= most) continue;
    most = written.length;
    cover = page;
  }
  return cover;
}
