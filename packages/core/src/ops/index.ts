import * as z from 'zod';
import type { Board, BoardDraft } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import { boardRename } from './board-rename.js';
import { boardRules } from './board-rules.js';
import { boardSheet } from './board-sheet.js';
import { inkAdd } from './ink-add.js';
import { inkCut, inkMend } from './ink-cut.js';
import { itemAdd } from './item-add.js';
import { itemChange } from './item-change.js';
import { itemsRemove } from './items-remove.js';
import { itemsRestore } from './items-restore.js';
import type { OperationType, Stamp } from './operation.js';
import { pageChange } from './page-change.js';
import { applyTold, isTold, TOLD } from './told.js';
import { pagesAdd, pagesRemove, pagesRestore } from './pages.js';

export type { Stamp } from './operation.js';
export { MAX_INK_BYTES } from './ink-bytes.js';
export { additionOf, additionsElsewhere } from './addition.js';
export { changeItem } from './item-change.js';
export type { ItemTraits } from './item-traits.js';
export { inParts } from './in-parts.js';
export { changePage } from './page-change.js';
export { same, sizeOf } from './same.js';
export { isWriting } from './writing.js';
export { MAX_PAGES_AT_ONCE } from './pages.js';

/** Any change to a board. */
export const Operation = z.discriminatedUnion('kind', [
  inkAdd.schema,
  inkCut.schema,
  inkMend.schema,
  itemAdd.schema,
  itemChange.schema,
  itemsRemove.schema,
  itemsRestore.schema,
  pagesAdd.schema,
  pagesRemove.schema,
  pagesRestore.schema,
  pageChange.schema,
  boardRename.schema,
  boardSheet.schema,
  boardRules.schema,
]);
export type Operation = z.infer<typeof Operation>;

/** What someone is told of a change: the operation itself, or what stands in its place for them. */
export const ToldOperation = z.discriminatedUnion('kind', [...Operation.options, ...TOLD]);
export type ToldOperation = z.infer<typeof ToldOperation>;

/** An operation that has no id yet. */
export type Change = Operation extends infer Op
  ? Op extends Operation
    ? Omit<Op, 'id'>
    : never
  : never;

type AnyType = OperationType<z.ZodType<Operation>>;

const TYPES = {
  'ink.add': inkAdd,
  'ink.cut': inkCut,
  'ink.mend': inkMend,
  'item.add': itemAdd,
  'item.change': itemChange,
  'items.remove': itemsRemove,
  'items.restore': itemsRestore,
  'pages.add': pagesAdd,
  'pages.remove': pagesRemove,
  'pages.restore': pagesRestore,
  'page.change': pageChange,
  'board.rename': boardRename,
  'board.sheet': boardSheet,
  'board.rules': boardRules,
} as unknown as Record<Operation['kind'], AnyType>;

export function operation(change: Change): Operation {
  return { id: newId(), ...change } as Operation;
}

/** Makes the change in the draft; nothing happens if it was made before or has lost its object. */
export function apply(op: ToldOperation, draft: BoardDraft, stamp: Stamp): void {
  if (isTold(op)) applyTold(op, draft);
  else TYPES[op.kind].apply(op, draft, stamp);
}

/** What undoes `op` of person `who` on the board as it is now, or `null` if nothing is left to undo. */
export function invert(op: Operation, board: Board, who: Id): Operation | null {
  const change = TYPES[op.kind].invert(op, board, who);
  return change && operation(change as Change);
}

/** Why this person may not do this now, or `null`. The server's word; a browser only predicts it. */
export function refuse(op: Operation, board: Board, actor: Actor): RefusalCode | null {
  return TYPES[op.kind].refuse(op, board, actor);
}
