import * as z from 'zod';
import { Id } from '../id/index.js';
import { teaches } from '../permissions/index.js';
import { NOTHING_ABOUT, operationType } from './operation.js';

/** Gives the board another title. The former one goes along, so that undoing knows it. */
export const boardRename = operationType({
  schema: z.strictObject({
    id: Id,
    kind: z.literal('board.rename'),
    title: z.string().trim().min(1).max(200),
    former: z.string().max(200),
  }),
  apply({ title }, draft) {
    draft.setTitle(title);
  },
  invert({ title, former }, board) {
    return board.title === title && former !== ''
      ? { kind: 'board.rename', title: former, former: title }
      : null;
  },
  refuse: (_op, _board, actor) => (teaches(actor.role) ? null : 'tutor-only'),
  about: () => NOTHING_ABOUT,
  changes: () => null,
  project: (op) => ({ ...op, former: '' }),
  redact: () => false,
  touches: () => [],
});
