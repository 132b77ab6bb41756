import * as z from 'zod';
import { pageSnapshot, PageSpec } from '../board/index.js';
import type { Board, Page, Paper } from '../board/index.js';
import { Id, ids } from '../id/index.js';
import { isOrderKey } from '../order/index.js';
import { appliesTo, teaches } from '../permissions/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import { NOTHING_ABOUT, operationType } from './operation.js';
import { isShown, tombstone } from './projecting.js';
import { shownPage, shownSpec } from '../viewers/index.js';

/** Pages in one operation: an import adds its pages in runs of this many at most. */
export const MAX_PAGES_AT_ONCE = 500;

/** Taking pages out is the tutor's alone. One who helps takes back the empty pages that were added, and no other. */
function refuseRemoving(actor: Actor, board: Board, pages: readonly Id[]): RefusalCode | null {
  if (actor.role === 'tutor') return null;
  return actor.role === 'helper' && pages.every((id) => isUnused(board.pages.get(id)))
    ? null
    : 'tutor-only';
}

const NamedPages = z.strictObject({ id: Id, pages: ids(MAX_PAGES_AT_ONCE) });

/** Lays new pages into the board. */
export const pagesAdd = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('pages.add'),
    pages: z.array(PageSpec).min(1).max(MAX_PAGES_AT_ONCE),
  }),
  apply({ pages }, draft) {
    for (const page of pages) if (!draft.page(page.id)) draft.addPage(page);
  },
  invert({ pages }, board) {
    const there = pages.map(({ id }) => id).filter((id) => isThere(board.pages.get(id)));
    return there.length > 0 ? { kind: 'pages.remove', pages: there } : null;
  },
  refuse({ pages }, board, actor) {
    if (!pages.every(({ order }) => isOrderKey(order))) return 'bad-order';
    if (!teaches(actor.role))
      return appliesTo(actor, board, undefined).addPages && pages.every(isEmptySheet)
        ? null
        : 'tutor-only';
    return actor.imports || pages.every(({ paper }) => isPrinted(board, paper))
      ? null
      : 'unknown-file';
  },
  about: () => NOTHING_ABOUT,
  changes: ({ pages }) => (pages.some(({ hidden }) => hidden) ? 'hidden' : null),
  project(op, { after, viewer }) {
    const pages = op.pages.filter(({ id }) => isShown(after.pages.get(id), viewer)).map(shownSpec);
    return pages.length > 0 ? { ...op, pages } : tombstone(op);
  },
  redact: () => false,
  touches: () => [],
});

/** Takes pages out. What is on them stays with them. */
export const pagesRemove = operationType({
  schema: NamedPages.extend({ kind: z.literal('pages.remove') }),
  apply({ pages }, draft, { by, at }) {
    for (const id of pages) if (isThere(draft.page(id))) draft.setPage(id, { removed: { by, at } });
  },
  invert({ pages }, board, who) {
    const mine = pages.filter((id) => board.pages.get(id)?.removed?.by === who);
    return mine.length > 0 ? { kind: 'pages.restore', pages: mine } : null;
  },
  refuse: ({ pages }, board, actor) => refuseRemoving(actor, board, pages),
  about: ({ pages }) => ({ pages, items: [] }),
  changes: () => 'files',
  project(op, { before }) {
    const pages = op.pages.filter((id) => !before.has(id));
    return pages.length > 0 ? { ...op, pages } : tombstone(op);
  },
  redact: () => false,
  touches: ({ pages }) => pages,
});

/** Brings back pages that the same person took out. */
export const pagesRestore = operationType({
  schema: NamedPages.extend({ kind: z.literal('pages.restore') }),
  apply({ pages }, draft, { by }) {
    for (const id of pages)
      if (draft.page(id)?.removed?.by === by) draft.setPage(id, { removed: null });
  },
  invert({ pages }, board) {
    const there = pages.filter((id) => isThere(board.pages.get(id)));
    return there.length > 0 ? { kind: 'pages.remove', pages: there } : null;
  },
  refuse: (_op, _board, actor) => (teaches(actor.role) ? null : 'tutor-only'),
  about: ({ pages }) => ({ pages, items: [] }),
  changes: () => 'files',
  project(op, { after, viewer }) {
    const here = op.pages.flatMap((id) => {
      const page = after.pages.get(id);
      return isShown(page, viewer) ? [pageSnapshot(shownPage(page, viewer))] : [];
    });
    return here.length > 0 ? { id: op.id, kind: 'pages.now', here, gone: [] } : tombstone(op);
  },
  redact: () => false,
  touches: ({ pages }) => pages,
});

/** Whether it is a page as anyone may take one from the pad: of our own paper, and open to all. */
function isEmptySheet({ paper, hidden, privateNotes, rules }: PageSpec): boolean {
  return paper.kind !== 'pdf' && !hidden && !privateNotes && !rules;
}

/** Whether this paper needs no file, or one that the board has. */
function isPrinted(board: Board, paper: Paper): boolean {
  if (paper.kind !== 'pdf') return true;
  for (const page of board.pages.values())
    if (page.paper.kind === 'pdf' && page.paper.file === paper.file) return true;
  return false;
}

/** Whether nothing was ever on it. */
function isUnused(page: Page | undefined): boolean {
  return page === undefined || (isEmptySheet(page) && page.items.size === 0);
}

function isThere(page: Page | undefined): boolean {
  return page !== undefined && !page.removed;
}
