import { pageSnapshot } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Operation, ToldOperation } from '../ops/index.js';
import {
  ANY_STUDENT,
  isForStudents,
  isHeld,
  shownItem,
  shownPage,
  shownSpec,
} from './board-for.js';
import type { Viewer } from './board-for.js';

type Of<Kind extends Operation['kind']> = Extract<Operation, { kind: Kind }>;

/** Whether this operation may change which files students of a board may have. */
export function changesFiles(op: Operation): boolean {
  return op.kind === 'pages.remove' || op.kind === 'pages.restore' || changesHeld(op);
}

/** Whether this operation may change what is held back. */
export function changesHeld(op: Operation): boolean {
  switch (op.kind) {
    case 'page.change':
      return op.to.held !== undefined;
    case 'pages.add':
      return op.pages.some(({ held }) => held);
    case 'item.change':
      return op.to.held !== undefined;
    case 'item.add':
      return op.item.held === true;
    default:
      return false;
  }
}

/** Of the pages and items that an operation is about, those that are held back. */
export function heldOf(op: Operation, board: Board): ReadonlySet<Id> {
  const held = new Set<Id>();
  if (op.kind === 'pages.remove' || op.kind === 'pages.restore') {
    for (const id of op.pages) if (board.pages.get(id)?.held) held.add(id);
  } else if ('page' in op) {
    const page = board.pages.get(op.page);
    if (page?.held) held.add(op.page);
    const about = op.kind === 'item.change' ? [op.item] : 'items' in op ? op.items : [];
    for (const id of about) if (isHeld(page?.items.get(id))) held.add(id);
  }
  return held;
}

/**
 * What students are told of an operation. What is there no more after it is told as an empty place; what comes back
 * is told whole, since who came meanwhile was never sent it.
 * @param before what `heldOf` said before it
 * @param after the board after it; where it doesn't change what is held back, any later one will do
 * @param viewer who is told, where it isn't told to all
 */
export function toldToStudents(
  op: Operation,
  before: ReadonlySet<Id>,
  after: Board,
  viewer: Viewer = ANY_STUDENT,
): ToldOperation {
  switch (op.kind) {
    case 'pages.add': {
      const pages = op.pages.filter(({ id }) => isShown(after.pages.get(id))).map(shownSpec);
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'pages.remove': {
      const pages = op.pages.filter((id) => !before.has(id));
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'pages.restore': {
      const here = op.pages.flatMap((id) => {
        const page = after.pages.get(id);
        return page && isShown(page) ? [pageSnapshot(shownPage(page, viewer))] : [];
      });
      return here.length > 0 ? { id: op.id, kind: 'pages.now', here, gone: [] } : unseen(op);
    }
    case 'page.change':
      return toldOfPage(op, before.has(op.page), after, viewer);
    case 'board.rename':
      return { ...op, former: '' };
    case 'board.sheet':
    case 'board.rules':
      return op;
    default: {
      const page = after.pages.get(op.page);
      return page && isShown(page) && !before.has(op.page)
        ? toldOfItems(op, before, page, viewer)
        : unseen(op);
    }
  }
}

function isShown(page: Page | undefined): boolean {
  return page !== undefined && isForStudents(page);
}

function toldOfPage(
  op: Of<'page.change'>,
  wasHeld: boolean,
  after: Board,
  viewer: Viewer,
): ToldOperation {
  const { id } = op;
  const page = after.pages.get(op.page);
  if (!page || page.removed) return unseen(op);
  if (page.held) return wasHeld ? unseen(op) : { id, kind: 'pages.now', here: [], gone: [op.page] };
  if (wasHeld)
    return { id, kind: 'pages.now', here: [pageSnapshot(shownPage(page, viewer))], gone: [] };
  const to = { ...op.to };
  delete to.margin;
  delete to.held;
  // What it was is of use to who changed it, and to nobody else.
  return Object.keys(to).length > 0 ? { ...op, to, from: {} } : unseen(op);
}

/** Of an operation on what lies on a page that students are shown. */
function toldOfItems(
  op: Exclude<Extract<Operation, { page: Id }>, Of<'page.change'>>,
  before: ReadonlySet<Id>,
  page: Page,
  viewer: Viewer,
): ToldOperation {
  const now = (ids: readonly Id[], gone: readonly Id[] = []): ToldOperation => {
    const here = ids.flatMap((id) => {
      const item = page.items.get(id);
      return (item && shownItem(item, page, viewer)) ?? [];
    });
    if (here.length + gone.length === 0) return unseen(op);
    return { id: op.id, kind: 'items.now', page: page.id, here, gone: [...gone] };
  };
  const isAsItWas = (id: Id): boolean => {
    const item = page.items.get(id);
    return item !== undefined && shownItem(item, page, viewer) === item;
  };
  switch (op.kind) {
    case 'ink.add':
    case 'item.add':
      return isAsItWas(op.id) ? op : now([op.id]);
    case 'ink.cut':
      // Where the line isn't known any more, its pieces could not be made of it.
      return now([op.item, ...op.pieces.map(({ id }) => id)]);
    case 'ink.mend':
      return now([op.item, ...op.pieces]);
    case 'items.remove': {
      const items = op.items.filter((id) => !before.has(id));
      return items.length > 0 ? { ...op, items } : unseen(op);
    }
    case 'items.restore':
      return now([...op.items, ...writtenOn(op.items, page)]);
    case 'item.change': {
      const isHeldNow = isHeld(page.items.get(op.item));
      if (before.has(op.item) !== isHeldNow) return now([op.item], isHeldNow ? [op.item] : []);
      return isAsItWas(op.item) ? { ...op, from: {} } : unseen(op);
    }
  }
}

/** All that was written on these cover sheets: it comes back with them. */
function writtenOn(sheets: readonly Id[], page: Page): Id[] {
  const covers = sheets.filter((id) => page.items.get(id)?.kind === 'cover');
  if (covers.length === 0) return [];
  return [...page.items.values()].filter(({ on }) => on && covers.includes(on)).map(({ id }) => id);
}

function unseen({ id }: Operation): ToldOperation {
  return { id, kind: 'nothing' };
}
