import * as z from 'zod';
import { pageSnapshot, PageSpec } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import { Id } from '../id/index.js';
import { isOrderKey } from '../order/index.js';
import { teaches } from '../permissions/index.js';
import { operationType } from './operation.js';
import { same } from './same.js';
import { tombstone } from './projecting.js';
import { shownPage } from '../viewers/index.js';

/** What of a page can be changed. */
const Traits = PageSpec.omit({ id: true }).partial();
type Traits = z.infer<typeof Traits>;

/** What a page has that says nothing of it. */
const ABSENT: Traits = { hidden: false, privateNotes: [], rules: {} };

/**
 * Changes a page's name, place, size or paper, its margin, or whether it is hidden. What it was goes along, so that undoing knows it.
 * An imported page stays what was imported: only its name, place and tint change.
 */
export const pageChange = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('page.change'),
    page: Id,
    to: Traits,
    from: Traits,
  }),
  apply({ page, to }, draft) {
    if (draft.page(page)) draft.setPage(page, to);
  },
  invert({ page, to, from }, board) {
    const now = board.pages.get(page);
    if (!now || now.removed) return null;
    // What someone has changed since is theirs, and stays.
    const is: Traits = { ...ABSENT, ...now };
    const keys = traits(to).filter((key) => key in from && same(is[key], to[key]));
    return keys.length > 0
      ? { kind: 'page.change', page, to: pick(from, keys), from: pick(to, keys) }
      : null;
  },
  refuse({ page, to }, board, actor) {
    if (!teaches(actor.role)) return 'tutor-only';
    const now = board.pages.get(page);
    if (!now) return 'no-such-page';
    if (to.order !== undefined && !isOrderKey(to.order)) return 'bad-order';
    return keepsPrint(now, to) || actor.imports ? null : 'printed-page';
  },
  about: ({ page }) => ({ pages: [page], items: [] }),
  changes: ({ to }) => (to.hidden === undefined ? null : 'hidden'),
  project(op, { before, after, viewer }) {
    const { id } = op;
    const wasHidden = before.has(op.page);
    const page = after.pages.get(op.page);
    if (!page || page.removed) return tombstone(op);
    if (page.hidden)
      return wasHidden ? tombstone(op) : { id, kind: 'pages.now', here: [], gone: [op.page] };
    if (wasHidden)
      return { id, kind: 'pages.now', here: [pageSnapshot(shownPage(page, viewer))], gone: [] };
    const to = { ...op.to };
    delete to.privateNotes;
    delete to.hidden;
    // What it was is of use to who changed it, and to nobody else.
    return Object.keys(to).length > 0 ? { ...op, to, from: {} } : tombstone(op);
  },
  redact: () => false,
  touches: () => [],
});

/** The change that gives a page these traits, with what it has now to undo it by. */
export function changePage(
  board: Board,
  page: Id,
  to: Traits,
): { kind: 'page.change'; page: Id; to: Traits; from: Traits } | null {
  const now = board.pages.get(page);
  if (!now) return null;
  const was: Traits = { ...ABSENT, ...now };
  const keys = traits(to).filter((key) => !same(was[key], to[key]));
  return keys.length > 0
    ? { kind: 'page.change', page, to: pick(to, keys), from: pick(was, keys) }
    : null;
}

/** A file can neither be slipped under a page nor taken from it, nor stretched. */
function keepsPrint(now: Page, { paper, width, height }: Traits): boolean {
  const printed = now.paper.kind === 'pdf';
  if (printed && (width !== undefined || height !== undefined)) return false;
  if (!paper) return true;
  if (!printed && paper.kind !== 'pdf') return true;
  return same({ ...now.paper, tint: null }, { ...paper, tint: null });
}

function traits(some: Traits): (keyof Traits)[] {
  return (Object.keys(some) as (keyof Traits)[]).filter((key) => some[key] !== undefined);
}

function pick(all: Traits, keys: readonly (keyof Traits)[]): Traits {
  return Object.fromEntries(keys.map((key) => [key, all[key]]));
}
