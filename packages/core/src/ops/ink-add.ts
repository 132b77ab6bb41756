import * as z from 'zod';
import { Id } from '../id/index.js';
import { checkStroke, InkCodingError } from '../ink/index.js';
import { InkBytes } from './ink-bytes.js';
import { refuseWriting } from './items.js';
import { operationType } from './operation.js';
import { isAsItWas, itemsNow, onShownPage } from './projecting.js';
import { noteAdded } from './redacting.js';

const schema = z.strictObject({
  id: Id,
  kind: z.literal('ink.add'),
  page: Id,
  ink: InkBytes,
  /** The cover sheet that it is written on. */
  on: Id.optional(),
});

/** A finished line. The item it makes has the operation's own id. */
export const inkAdd = operationType({
  schema,
  apply({ id, page, ink, on }, draft, { by, at, lesson }) {
    if (!draft.page(page) || draft.item(page, id)) return;
    draft.setItem(page, {
      ...{ kind: 'ink', id, ink, by, at, lesson, removed: null },
      ...(on ? { on } : {}),
    });
  },
  invert({ id, page }, board, who) {
    const item = board.pages.get(page)?.items.get(id);
    return item && !item.removed && item.by === who
      ? { kind: 'items.remove', page, items: [id] }
      : null;
  },
  refuse({ page, ink }, board, actor) {
    const not = refuseWriting(board, page, actor);
    if (not) return not;
    try {
      checkStroke(ink);
    } catch (error) {
      if (error instanceof InkCodingError) return 'bad-ink';
      throw error;
    }
    return null;
  },
  about: ({ page }) => ({ pages: [page], items: [] }),
  changes: () => null,
  project: (op, projecting) =>
    onShownPage(op, projecting, (page) =>
      isAsItWas(op.id, page, projecting.viewer)
        ? op
        : itemsNow(op, page, projecting.viewer, [op.id]),
    ),
  redact: noteAdded,
  touches: () => [],
});
