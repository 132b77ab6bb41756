import { A4, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, PageSize, Paper } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { changePage } from '../ops/index.js';
import type { Change } from '../ops/index.js';
import { keyBetween } from '../order/index.js';
import type { OrderKey } from '../order/index.js';

/*
 * What a tutor does with pages, as the changes that do it. They are computed against the board as it
 * is seen; made together, as one step, they can be undone together.
 */

/** Changes, and the page to go to when they are made. */
export interface PageEdit {
  readonly changes: readonly Change[];
  readonly show: Id;
}

/**
 * The place between the page at `index` and the one before it. Two windows may have laid pages at
 * one place; then it is the place after them.
 */
function orderAt(pages: readonly { order: OrderKey }[], index: number): OrderKey {
  const before = pages[index - 1]?.order ?? null;
  const after = pages.slice(index).find(({ order }) => before === null || order > before);
  return keyBetween(before, after?.order ?? null);
}

/**
 * An empty page before or after `page`, of its size; its paper too, where that is one of ours. At
 * the board's end where there is no such page.
 */
export function addPageBeside(board: Board, page: Id | null, side: 'before' | 'after'): PageEdit {
  const pages = pagesInOrder(board);
  const at = pages.findIndex(({ id }) => id === page);
  const here = pages[at];
  const { width, height } = here ?? A4;
  const paper: Paper = here && here.paper.kind !== 'pdf' ? here.paper : { kind: 'plain' };
  const index = !here ? pages.length : side === 'before' ? at : at + 1;
  const spec = { id: newId(), order: orderAt(pages, index), name: '', width, height, paper };
  return { changes: [{ kind: 'pages.add', pages: [spec] }], show: spec.id };
}

/** A copy of a page right after it, with the ink that is on it; `null` if it is gone. */
export function copyPage(board: Board, page: Id): PageEdit | null {
  const pages = pagesInOrder(board);
  const at = pages.findIndex(({ id }) => id === page);
  const here = pages[at];
  if (!here) return null;
  const { name, width, height, paper } = here;
  const spec = { id: newId(), order: orderAt(pages, at + 1), name, width, height, paper };
  return {
    changes: [
      { kind: 'pages.add', pages: [spec] },
      ...itemsOn(here).map(({ ink }) => ({ kind: 'ink.add', page: spec.id, ink }) as const),
    ],
    show: spec.id,
  };
}

/** Brings a page to place `index`, counted without it; `null` where it is there already or gone. */
export function movePage(board: Board, page: Id, index: number): PageEdit | null {
  const pages = pagesInOrder(board);
  const from = pages.findIndex(({ id }) => id === page);
  const others = pages.filter(({ id }) => id !== page);
  if (from < 0 || from === Math.min(index, others.length)) return null;
  const change = changePage(board, page, {
    order: orderAt(others, Math.min(index, others.length)),
  });
  return change && { changes: [change], show: page };
}

/** Takes a page out; `null` where it is gone, or the last one there is. */
export function removePage(board: Board, page: Id): PageEdit | null {
  const pages = pagesInOrder(board);
  const at = pages.findIndex(({ id }) => id === page);
  const next = pages[at + 1] ?? pages[at - 1];
  return at < 0 || !next
    ? null
    : { changes: [{ kind: 'pages.remove', pages: [page] }], show: next.id };
}

/** Gives a page a name, or another paper or size. */
export function dressPage(
  board: Board,
  page: Id,
  to: { name?: string; paper?: Paper } & Partial<PageSize>,
): PageEdit | null {
  const change = changePage(board, page, to);
  return change && { changes: [change], show: page };
}
