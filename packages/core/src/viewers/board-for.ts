import type { Board, InkItem, Item, Page, PageSpec, Removal } from '../board/index.js';
import type { Id } from '../id/index.js';
import { audienceOf, maySee } from './audience.js';
import type { Viewer } from './audience.js';

/*
 * Who is sent what. A tutor sees the whole board; a student is sent no margin, nothing that is hidden, and nothing
 * that was taken away before they could see it. What isn't sent can't be found on their machine, whatever they try there.
 */

/** A student of whom nothing is known: what they are sent, all may be sent. */
export const ANY_STUDENT: Viewer = { id: '', role: 'student' };

/** What all students may see of a page. Pages of a board never change, so it is found once. */
const forAll = new WeakMap<Page, Page>();

/** The board as this person may see it. */
export function boardFor(board: Board, viewer: Viewer): Board {
  if (maySee(viewer, 'tutors')) return board;
  const pages = [...board.pages].filter(([, page]) => maySee(viewer, audienceOf(page)));
  return { ...board, pages: new Map(pages.map(([id, page]) => [id, pageFor(page, viewer)])) };
}

function pageFor(page: Page, viewer: Viewer): Page {
  for (const item of page.items.values())
    if (item.by === viewer.id && removalOf(item, page)) return shownPage(page, viewer);
  let seen = forAll.get(page);
  if (!seen) forAll.set(page, (seen = shownPage(page, ANY_STUDENT)));
  return seen;
}

/** A page with all that this student may see of it. */
export function shownPage(page: Page, viewer: Viewer): Page {
  const seen = shownSpec(page);
  let same = true;
  const items: [Id, Item][] = [];
  for (const [id, item] of page.items) {
    const shown = shownItem(item, page, viewer);
    if (shown) items.push([id, shown]);
    same &&= shown === item;
  }
  return same ? seen : { ...seen, items: new Map(items) };
}

/**
 * An item as this student may see it: `null` where it is hidden; an empty place where it was taken away and
 * isn't theirs. Places stay, since lines lie on one another in the order in which they came.
 */
export function shownItem(item: Item, page: Page, viewer: Viewer): Item | null {
  if (isHidden(item)) return null;
  const removed = removalOf(item, page);
  return removed && item.by !== viewer.id ? emptyPlace(item.id, removed) : item;
}

/** Who took an item away, or the cover sheet that it was written on. */
function removalOf(item: Item, page: Page): Removal | null {
  return item.removed ?? (item.on ? (page.items.get(item.on)?.removed ?? null) : null);
}

/** What stands for an item that was taken away: that there was one, and nothing of what it was. */
function emptyPlace(id: Id, removed: Removal): InkItem {
  const nothing = { by: removed.by, at: 0, lesson: null };
  return { kind: 'ink', id, ink: new Uint8Array(), ...nothing, removed };
}

/** A page without what is for its tutor alone. */
export function shownSpec<P extends PageSpec>(page: P): P {
  if (page.privateNotes === undefined && page.hidden === undefined) return page;
  const seen = { ...page };
  delete seen.privateNotes;
  delete seen.hidden;
  return seen;
}

export function isHidden(item: Item | undefined): boolean {
  return item !== undefined && item.kind !== 'ink' && item.hidden === true;
}
