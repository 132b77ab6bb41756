import * as z from 'zod';
import { Sheet } from '../board/index.js';
import { Id } from '../id/index.js';
import { teaches } from '../permissions/index.js';
import { NOTHING_ABOUT, operationType } from './operation.js';
import { same } from './same.js';

/** Says what empty pages of this board are. What it was goes along, so that undoing knows it. */
export const boardSheet = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('board.sheet'),
    to: Sheet.nullable(),
    from: Sheet.nullable(),
  }),
  apply({ to }, draft) {
    draft.setSheet(to);
  },
  invert({ to, from }, board) {
    return same(board.sheet, to) && !same(from, to)
      ? { kind: 'board.sheet', to: from, from: to }
      : null;
  },
  refuse: (_op, _board, actor) => (teaches(actor.role) ? null : 'tutor-only'),
  about: () => NOTHING_ABOUT,
  changes: () => null,
  project: (op) => op,
  redact: () => false,
  touches: () => [],
});
