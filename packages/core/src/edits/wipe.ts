import { isMaterial, pagesInOrder } from '../board/index.js';
import type { Board, Item, Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Change } from '../ops/index.js';
import { inSight } from './selection.js';

/** Items in one operation at most: see `inParts`. */
const MOST = 1000;

/** Whose ink: one's own, everyone's, or that of all but the tutor. */
export type Whose = { readonly who: Id } | 'students' | 'all';

/**
 * Wipes ink off pages: lines, and what was written with other tools. Material stays, and so does what is held
 * back until its moment, what a cover sheet lies over, and what was lifted with one.
 * @param pages which, or all of the board
 * @param tutor whose ink the students' is not
 */
export function wipe(
  board: Board,
  whose: Whose,
  pages: readonly Id[] | 'all',
  tutor: Id,
): Change[] {
  const meant = (by: Id): boolean =>
    whose === 'all' || (whose === 'students' ? by !== tutor : by === whose.who);
  const here = pagesInOrder(board).filter(({ id }) => pages === 'all' || pages.includes(id));
  return here.flatMap((page) => {
    const ids = wipeable(page)
      .filter((item) => meant(item.by) && (item.kind === 'ink' || !item.hidden))
      .map(({ id }) => id);
    const changes: Change[] = [];
    for (let i = 0; i < ids.length; i += MOST)
      changes.push({ kind: 'items.remove', page: page.id, items: ids.slice(i, i + MOST) });
    return changes;
  });
}

function wipeable(page: Page): Item[] {
  return inSight(page).filter((item) => !isMaterial(item));
}

/** Who has ink on these pages, the one who has most of it first. */
export function writersOn(board: Board, pages: readonly Id[] | 'all'): Map<Id, number> {
  const counts = new Map<Id, number>();
  for (const page of pagesInOrder(board))
    if (pages === 'all' || pages.includes(page.id))
      for (const { by } of wipeable(page)) counts.set(by, (counts.get(by) ?? 0) + 1);
  return new Map([...counts].sort(([, a], [, b]) => b - a));
}
