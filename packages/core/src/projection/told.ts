import { pageSnapshot } from '../board/index.js';
import type { Board } from '../board/index.js';
import type { Id } from '../id/index.js';
import type { Operation, ToldOperation } from '../ops/index.js';
import { pageFor } from './board-for.js';

type PageChange = Extract<Operation, { kind: 'page.change' }>;

/** Whether this operation may change which pages are held back. */
export function changesHeld(op: Operation): boolean {
  if (op.kind === 'page.change') return op.to.held !== undefined;
  return op.kind === 'pages.add' && op.pages.some(({ held }) => held);
}

/** Of the pages that an operation is about, those that are held back. */
export function heldOf(op: Operation, board: Board): ReadonlySet<Id> {
  const about =
    'page' in op
      ? [op.page]
      : op.kind === 'pages.remove' || op.kind === 'pages.restore'
        ? op.pages
        : [];
  return new Set(about.filter((id) => board.pages.get(id)?.held));
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
      // A page known before is not laid in again.
      const pages = op.pages.filter(({ id }) => !after.pages.get(id)?.held).map(pageFor);
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'pages.remove':
    case 'pages.restore': {
      const pages = op.pages.filter((id) => !before.has(id));
      return pages.length > 0 ? { ...op, pages } : unseen(op);
    }
    case 'page.change':
      return toldOfChange(op, before.has(op.page), after);
    case 'ink.add':
    case 'items.remove':
    case 'items.restore':
      return before.has(op.page) ? unseen(op) : op;
    case 'board.rename':
    case 'board.sheet':
      return op;
  }
}

function toldOfChange(op: PageChange, wasHeld: boolean, after: Board): ToldOperation {
  const page = after.pages.get(op.page);
  if (!page) return unseen(op);
  if (page.held) return wasHeld ? unseen(op) : { id: op.id, kind: 'page.gone', page: op.page };
  if (wasHeld) return { id: op.id, kind: 'page.here', page: pageSnapshot(pageFor(page)) };
  const { to, from } = { to: withoutPrivate(op.to), from: withoutPrivate(op.from) };
  return Object.keys(to).length > 0 ? { ...op, to, from } : unseen(op);
}

function withoutPrivate(traits: PageChange['to']): PageChange['to'] {
  const seen = { ...traits };
  delete seen.margin;
  delete seen.held;
  return seen;
}

function unseen({ id }: Operation): ToldOperation {
  return { id, kind: 'nothing' };
}
