import { z } from 'zod';
import { Id } from '../id/index.js';
import { checkStroke, InkCodingError } from '../ink/index.js';
import { refuseWriting } from './items.js';
import { operationType } from './operation.js';

/** Largest stroke in bytes: 20,000 points, coded as badly as can be, are fewer. */
export const MAX_INK_BYTES = 200_000;

const schema = z.object({
  id: Id,
  kind: z.literal('ink.add'),
  page: Id,
  ink: z.custom<Uint8Array>(
    (value) => value instanceof Uint8Array && value.length <= MAX_INK_BYTES,
    'ink is at most 200,000 bytes',
  ),
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
});
