import { A4, itemsOn, pagesInOrder } from '../board/index.js';
import type { Board, Page, PageSize, PageSpec, Paper } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { additionsElsewhere, changePage } from '../ops/index.js';
import type { Change } from '../ops/index.js';
import { keysBetween } from '../order/index.js';
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
 * Places between the page at `index` and the one before it. Two windows may have laid pages at one
 * place; then they are after those.
 */
function ordersAt(pages: readonly { order: OrderKey }[], index: number, count: number): OrderKey[] {
  const before = pages[index - 1]?.order ?? null;
  const after = pages.slice(index).find(({ order }) => before === null || order > before);
  return keysBetween(before, after?.order ?? null, count);
}

/**
 * An empty page before or after `page`, on the board's own paper if it has one; else of its
 * neighbour's size, and its paper too, where that is one of ours. At the board's end where there is
 * no such page.
 */
export function addPageBeside(board: Board, page: Id | null, side: 'before' | 'after'): PageEdit {
  const pages = pagesInOrder(board);
  const at = pages.findIndex(({ id }) => id === page);
  const here = pages[at];
  const { width, height } = board.sheet ?? here ?? A4;
  const neighbours: Paper = here && here.paper.kind !== 'pdf' ? here.paper : { kind: 'plain' };
  const paper = board.sheet?.paper ?? neighbours;
  const index = !here ? pages.length : side === 'before' ? at : at + 1;
  const spec = {
    id: newId(),
    order: ordersAt(pages, index, 1)[0]!,
    name: '',
    width,
    height,
    paper,
  };
  return { changes: [{ kind: 'pages.add', pages: [spec] }], show: spec.id };
}

/** Copies of pages right after the last of them, with what is on them; `null` if all are gone. */
export function copyPages(board: Board, ids: readonly Id[]): PageEdit | null {
  const { pages, chosen, last } = choose(board, ids);
  if (chosen.length === 0) return null;
  const orders = ordersAt(pages, last + 1, chosen.length);
  const specs = chosen.map((page, i) => specLike(page, orders[i]!));
  return {
    changes: [
      { kind: 'pages.add', pages: specs },
      ...chosen.flatMap((page, i) => additionsElsewhere(itemsOn(page), specs[i]!.id)),
    ],
    show: specs[0]!.id,
  };
}

/**
 * Brings pages, one after the other as they lie, to place `index`, counted without them; `null`
 * where they are there already or gone.
 */
export function movePages(board: Board, ids: readonly Id[], index: number): PageEdit | null {
  const { pages, chosen } = choose(board, ids);
  const others = pages.filter((page) => !chosen.includes(page));
  const at = Math.min(index, others.length);
  const after = [...others.slice(0, at), ...chosen, ...others.slice(at)];
  if (chosen.length === 0 || after.every((page, i) => page === pages[i])) return null;
  const orders = ordersAt(others, at, chosen.length);
  const changes = chosen.flatMap(({ id }, i) => changePage(board, id, { order: orders[i]! }) ?? []);
  return { changes, show: chosen[0]!.id };
}

/** Takes pages out; `null` where they are gone, or no other is left. */
export function removePages(board: Board, ids: readonly Id[]): PageEdit | null {
  const { pages, chosen, last } = choose(board, ids);
  const others = pages.filter((page) => !chosen.includes(page));
  const next = pages.slice(last).find((page) => others.includes(page)) ?? others.at(-1);
  return chosen.length === 0 || !next
    ? null
    : {
        changes: [{ kind: 'pages.remove', pages: chosen.map(({ id }) => id) }],
        show: next.id,
      };
}

/** What can be given to pages: all they have but their place. */
export type PageTraits = Partial<Omit<PageSpec, 'id' | 'order'>>;

/** Gives pages a name, another paper or size …; what is printed stays as it is but for its tint. */
export function setPageProps(board: Board, ids: readonly Id[], to: PageTraits): PageEdit | null {
  const { chosen } = choose(board, ids);
  const changes = chosen.flatMap((page) => changePage(board, page.id, fitting(page, to)) ?? []);
  return changes.length > 0 ? { changes, show: chosen[0]!.id } : null;
}

/** A page like another, at a place of its own and with nothing on it yet. */
export function specLike(page: Page, order: OrderKey): PageSpec {
  const { name, width, height, paper, hidden, privateNotes } = page;
  return {
    id: newId(),
    order,
    name,
    width,
    height,
    paper,
    ...(hidden ? { hidden } : {}),
    ...(privateNotes ? { privateNotes } : {}),
  };
}

/** Those of these pages that are there, in their order, and where the last of them is. */
function choose(board: Board, ids: readonly Id[]): { pages: Page[]; chosen: Page[]; last: number } {
  const pages = pagesInOrder(board);
  const wanted = new Set(ids);
  const last = pages.findLastIndex(({ id }) => wanted.has(id));
  return { pages, chosen: pages.filter(({ id }) => wanted.has(id)), last };
}

/** What of a change an imported page can take, and the other way round. */
function fitting<To extends { paper?: Paper } & Partial<PageSize>>(
  page: Page,
  to: To,
): Partial<To> {
  const { paper } = to;
  if (page.paper.kind !== 'pdf') {
    if (paper?.kind !== 'pdf') return to;
    return { ...to, paper: tinted(page.paper, paper.tint) };
  }
  const fit: { -readonly [K in keyof To]?: To[K] } = { ...to };
  delete fit.width;
  delete fit.height;
  if (paper) fit.paper = tinted(page.paper, paper.tint);
  return fit;
}

function tinted<P extends Paper>(paper: P, tint: string | undefined): P {
  const bare = { ...paper };
  delete bare.tint;
  return tint ? { ...bare, tint } : bare;
}
