import * as z from 'zod';
import { Id } from '../id/index.js';
import { Rules, teaches } from '../permissions/index.js';
import { NOTHING_ABOUT, operationType } from './operation.js';
import { same } from './same.js';

/** Says what students may do on this board, at most. What it was goes along, so that undoing knows it. */
export const boardRules = operationType({
  schema: z.strictObject({ id: Id, kind: z.literal('board.rules'), to: Rules, from: Rules }),
  apply({ to }, draft) {
    draft.setRules(to);
  },
  invert({ to, from }, board) {
    return same(board.rules, to) && !same(from, to)
      ? { kind: 'board.rules', to: from, from: to }
      : null;
  },
  refuse: (_op, _board, actor) => (teaches(actor.role) ? null : 'tutor-only'),
  about: () => NOTHING_ABOUT,
  changes: () => null,
  project: (op) => op,
  redact: () => false,
  touches: () => [],
});
