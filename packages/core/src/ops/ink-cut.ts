import * as z from 'zod';
import type { Board, InkItem } from '../board/index.js';
import { Id, ids } from '../id/index.js';
import { decodeStroke, InkCodingError, strokeBounds } from '../ink/index.js';
import type { Stroke } from '../ink/index.js';
import { teaches } from '../permissions/index.js';
import { InkBytes } from './ink-bytes.js';
import { refuseWriting } from './items.js';
import { operationType } from './operation.js';
import { same } from './same.js';
import { itemsNow, onShownPage } from './projecting.js';
import { isOfTheirs } from './redacting.js';

/** Most pieces that are left of a line. */
const MAX_PIECES = 200;
/** How far, in points, a piece may reach beyond its line: what coding rounds. */
const SLACK = 1;

const Piece = z.strictObject({
  id: Id,
  ink: InkBytes,
});

/**
 * Rubs out a part of a line: the pieces that are left stand in its place, and are still its writer's,
 * no matter who rubbed.
 */
export const inkCut = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('ink.cut'),
    page: Id,
    item: Id,
    pieces: z.array(Piece).min(1).max(MAX_PIECES),
  }),
  apply({ page, item, pieces }, draft, { by, at }) {
    const line = draft.item(page, item);
    // The one who came first has cut it.
    if (line?.kind !== 'ink' || line.removed) return;
    draft.setItem(page, { ...line, removed: { by, at } });
    for (const { id, ink } of pieces) {
      const piece = draft.item(page, id);
      if (piece?.removed?.by === by) draft.setItem(page, { ...piece, removed: null });
      else if (!piece) draft.setItem(page, { ...line, id, ink, of: item, removed: null });
    }
  },
  invert({ page, item, pieces }, board, who) {
    const line = lineOn(board, page, item);
    const items = board.pages.get(page)?.items;
    // What someone has done with a piece since is theirs, and stays.
    const whole = pieces.every(({ id }) => items?.get(id)?.removed === null);
    return line?.removed?.by === who && whole
      ? { kind: 'ink.mend', page, item, pieces: pieces.map(({ id }) => id) }
      : null;
  },
  refuse({ page, item, pieces }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    const line = lineOn(board, page, item);
    if (!line || line.removed) return 'no-such-item';
    if (!teaches(actor.role) && line.by !== actor.id) return 'not-yours';
    const items = board.pages.get(page)!.items;
    if (pieces.some(({ id }) => items.has(id) && !isPieceOf(items.get(id)!, item)))
      return 'bad-ink';
    try {
      const whole = decodeStroke(line.ink);
      return pieces.every(({ ink }) => isPart(decodeStroke(ink), whole)) ? null : 'bad-ink';
    } catch (error) {
      if (error instanceof InkCodingError) return 'bad-ink';
      throw error;
    }
  },
  about: ({ page }) => ({ pages: [page], items: [] }),
  changes: () => null,
  // Where the line isn't known any more, its pieces could not be made of it.
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) =>
      itemsNow(op, page, projecting.viewer, [op.item, ...op.pieces.map(({ id }) => id)]),
    ),
  redact({ item, pieces }, _by, { items }) {
    // Pieces are their line's writer's, no matter who cut it.
    if (items.has(item)) for (const { id } of pieces) items.add(id);
    return items.has(item);
  },
  touches: ({ item }) => [item],
});

/** Puts a line back in the place of its pieces. */
export const inkMend = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('ink.mend'),
    page: Id,
    item: Id,
    pieces: ids(MAX_PIECES),
  }),
  apply({ page, item, pieces }, draft, { by, at }) {
    const line = draft.item(page, item);
    if (line?.removed?.by !== by) return;
    draft.setItem(page, { ...line, removed: null });
    for (const id of pieces) {
      const piece = draft.item(page, id);
      if (piece && !piece.removed) draft.setItem(page, { ...piece, removed: { by, at } });
    }
  },
  invert({ page, item, pieces }, board, who) {
    const line = lineOn(board, page, item);
    const items = board.pages.get(page)?.items;
    const again = pieces.flatMap((id) => {
      const piece = items?.get(id);
      return piece?.kind === 'ink' && piece.removed?.by === who ? [{ id, ink: piece.ink }] : [];
    });
    return line && !line.removed && again.length === pieces.length
      ? { kind: 'ink.cut', page, item, pieces: again }
      : null;
  },
  refuse({ page, item, pieces }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    const line = lineOn(board, page, item);
    if (!line) return 'no-such-item';
    if (line.removed && line.removed.by !== actor.id) return 'not-yours';
    const items = board.pages.get(page)!.items;
    return pieces.every((id) => items.has(id) && isPieceOf(items.get(id)!, item))
      ? null
      : 'no-such-item';
  },
  about: ({ page }) => ({ pages: [page], items: [] }),
  changes: () => null,
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) =>
      itemsNow(op, page, projecting.viewer, [op.item, ...op.pieces]),
    ),
  redact: isOfTheirs,
  touches: ({ item }) => [item],
});

function lineOn(board: Board, page: Id, item: Id): InkItem | null {
  const line = board.pages.get(page)?.items.get(item);
  return line?.kind === 'ink' ? line : null;
}

function isPieceOf(item: { readonly kind: string }, line: Id): boolean {
  return item.kind === 'ink' && (item as InkItem).of === line;
}

/** Drawn with the same pen, and nowhere that the line wasn't. */
function isPart(piece: Stroke, whole: Stroke): boolean {
  const [part, all] = [strokeBounds(piece), strokeBounds(whole)];
  return (
    same(piece.style, whole.style) &&
    part.x >= all.x - SLACK &&
    part.y >= all.y - SLACK &&
    part.x + part.width <= all.x + all.width + SLACK &&
    part.y + part.height <= all.y + all.height + SLACK
  );
}
