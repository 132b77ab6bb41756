import * as z from 'zod';
import { Id } from '../id/index.js';
import { Rules } from '../permissions/index.js';
import { pagesInOrder } from './board.js';
import type { Board } from './board.js';
import { PageSpec } from './page.js';
import type { Page } from './page.js';
import { Sheet } from './paper.js';
import { pageFromSnapshot, pageSnapshot, PageSnapshot, RemovalSnapshot } from './snapshot.js';

/*
 * A board is sent page by page: first all pages as they lie, with what is on those in view; what is on
 * the others is asked for. So a board of a year opens like one of a page, on a thin line too.
 */

/** A page without what is on it, of which there are `count` items. */
export const PageFrame = PageSpec.extend({
  removed: RemovalSnapshot,
  unreadable: z.number().int().min(1).optional(),
  count: z.number().int().min(1),
});
export type PageFrame = z.infer<typeof PageFrame>;

/** A board as it was after entry `seq` of its log, with what is on some of its pages. */
export const BoardOutline = z.object({
  id: Id,
  title: z.string(),
  sheet: Sheet.nullable(),
  rules: Rules,
  seq: z.number().int().min(0),
  unreadable: z.number().int().min(1).optional(),
  pages: z.array(z.union([PageSnapshot, PageFrame])),
});
export type BoardOutline = z.infer<typeof BoardOutline>;

/** The page as it is sent where what is on it isn't; a page with nothing on it is there at once. */
export function pageFrame(page: Page): PageFrame | PageSnapshot {
  if (page.items.size === 0) return pageSnapshot(page);
  const { items, ...rest } = page;
  return { ...rest, count: items.size };
}

/** @param whole pages that are sent with what is on them */
export function boardOutline(board: Board, seq: number, whole: ReadonlySet<Id>): BoardOutline {
  return {
    id: board.id,
    title: board.title,
    sheet: board.sheet,
    rules: board.rules,
    seq,
    ...(board.unreadable ? { unreadable: board.unreadable } : {}),
    pages: [...board.pages.values()].map((page) =>
      whole.has(page.id) ? pageSnapshot(page) : pageFrame(page),
    ),
  };
}

/**
 * The board of an outline, and the pages of which what is on them is still to come, with how much that is.
 * @param known the board as it was before: its items are shown until the present ones come
 */
export function boardFromOutline(
  outline: BoardOutline,
  known?: Board,
): { board: Board; coming: Map<Id, number> } {
  const coming = new Map<Id, number>();
  const pages = outline.pages.map((page): Page => {
    if ('items' in page) return pageFromSnapshot(page);
    const { count, ...frame } = page;
    coming.set(page.id, count);
    return { ...frame, items: known?.pages.get(page.id)?.items ?? new Map() };
  });
  const { id, title, sheet, rules, unreadable } = outline;
  return {
    board: {
      ...{ id, title, sheet, rules, pages: new Map(pages.map((page) => [page.id, page])) },
      ...(unreadable ? { unreadable } : {}),
    },
    coming,
  };
}

/**
 * Pages to be sent next: from the one that is looked at to those farthest from it, those after it ahead of
 * those before it; those that were taken out come last.
 * @param weight how much is on a page; 0 where it isn't wanted
 * @param most together; one page is always among them if any is wanted
 * @param count of pages at most
 */
export function nearestPages(
  board: Board,
  looked: Id | null,
  weight: (page: Page) => number,
  most: number,
  count: number,
): Id[] {
  const inOrder = pagesInOrder(board);
  const at = Math.max(
    0,
    inOrder.findIndex(({ id }) => id === looked),
  );
  const near: Id[] = [];
  let sum = 0;
  /** Whether there is room for more. */
  const take = (page: Page | undefined): boolean => {
    const more = page ? weight(page) : 0;
    if (!page || more === 0) return true;
    if (near.length > 0 && (sum + more > most || near.length >= count)) return false;
    near.push(page.id);
    sum += more;
    return true;
  };
  for (let step = 0; step < inOrder.length; step++) {
    if (!take(inOrder[at + step])) return near;
    if (step > 0 && !take(inOrder[at - step])) return near;
  }
  for (const page of board.pages.values()) if (page.removed && !take(page)) return near;
  return near;
}
