import { pageSnapshot } from '../board/index.js';
import type { Board } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Operation, ToldOperation } from '../ops/index.js';
import { isHeld, shownPage, shownSpec } from './board-for.js';

type Of<Kind extends Operation['kind']> = Extract<Operation, { kind: Kind }>;

/** Whether this operation may change what is held back. */
export function changesHeld(op: Operation): boolean {
  switch (op.kind) {
    case 'page.change':
      return op.to.held !== undefined;
    case 'pages.add':
      return op.pages.some(({ held }) => held);
    case 'item.change':
      return op.to['held'] !== undefined;
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
 * What students are told of an operation.
 * @param before what `heldOf` said before it
 * @param after the board after it; where it doesn't change what is held back, any later one will do
 */
export function toldToStudents(
  op: Operation,
  before: ReadonlySet<Id>,
  after: Board,
): ToldOperation {
  switch (op.kind) {
    case 'pages.add': {
      const pages = op.pages.filter(({ id }) => !after.pages.get(id)?.held).map(shownSpec);
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'pages.remove':
    case 'pages.restore': {
      const pages = op.pages.filter((id) => !before.has(id));
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'page.change':
      return toldOfPage(op, before.has(op.page), after);
    case 'item.change':
      return before.has(op.page) ? unseen(op) : toldOfItem(op, before.has(op.item), after);
    case 'ink.add':
    case 'ink.cut':
    case 'ink.mend':
      return before.has(op.page) ? unseen(op) : op;
    case 'item.add':
      return before.has(op.page) || isHeld(itemIn(after, op.page, op.id)) ? unseen(op) : op;
    case 'items.remove':
    case 'items.restore': {
      if (before.size === 0) return op;
      const items = before.has(op.page) ? [] : op.items.filter((id) => !before.has(id));
      return items.length > 0 ? { ...op, items } : unseen(op);
    }
    case 'board.rename':
    case 'board.sheet':
    case 'board.rules':
      return op;
  }
}

function toldOfPage(op: Of<'page.change'>, wasHeld: boolean, after: Board): ToldOperation {
  const page = after.pages.get(op.page);
  if (!page) return unseen(op);
  if (page.held) return wasHeld ? unseen(op) : { id: op.id, kind: 'page.gone', page: op.page };
  if (wasHeld) return { id: op.id, kind: 'page.here', page: pageSnapshot(shownPage(page)) };
  const to = { ...op.to };
  const from = { ...op.from };
  for (const traits of [to, from]) {
    delete traits.margin;
    delete traits.held;
  }
  return Object.keys(to).length > 0 ? { ...op, to, from } : unseen(op);
}

function toldOfItem(op: Of<'item.change'>, wasHeld: boolean, after: Board): ToldOperation {
  const { id, page } = op;
  const item = itemIn(after, page, op.item);
  if (!item) return unseen(op);
  if (isHeld(item)) return wasHeld ? unseen(op) : { id, kind: 'item.gone', page, item: op.item };
  return wasHeld ? { id, kind: 'item.here', page, item } : op;
}

function itemIn(board: Board, page: Id, item: Id) {
  return board.pages.get(page)?.items.get(item);
}

function unseen({ id }: Operation): ToldOperation {
  return { id, kind: 'nothing' };
}
