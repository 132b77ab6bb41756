import * as z from 'zod';
import type { Board, BoardDraft } from '../board/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import type { Actor, RefusalCode } from '../permissions/index.js';
import { isHidden } from '../viewers/index.js';
import type { Viewer } from '../viewers/index.js';
import { boardRename } from './board-rename.js';
import { boardRules } from './board-rules.js';
import { boardSheet } from './board-sheet.js';
import { inkAdd } from './ink-add.js';
import { inkCut, inkMend } from './ink-cut.js';
import { itemAdd } from './item-add.js';
import { itemChange } from './item-change.js';
import { itemsRemove } from './items-remove.js';
import { itemsRestore } from './items-restore.js';
import type { Redaction, OperationType, Stamp } from './operation.js';
import { pageChange } from './page-change.js';
import { applyProjection, isProjection, PROJECTIONS } from './projections.js';
import { pagesAdd, pagesRemove, pagesRestore } from './pages.js';

export type { Redaction, Stamp } from './operation.js';
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

/** What someone is sent of a change: the operation itself, or what stands in its place for them. */
export const ProjectedOperation = z.discriminatedUnion('kind', [
  ...Operation.options,
  ...PROJECTIONS,
]);
export type ProjectedOperation = z.infer<typeof ProjectedOperation>;

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
export function apply(op: ProjectedOperation, draft: BoardDraft, stamp: Stamp): void {
  if (isProjection(op)) applyProjection(op, draft);
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

/** Whether this operation may change which files students of a board may have. */
export function changesFiles(op: Operation): boolean {
  return TYPES[op.kind].changes(op) !== null;
}

/** Whether this operation may change what is hidden. */
export function changesHidden(op: Operation): boolean {
  return TYPES[op.kind].changes(op) === 'hidden';
}

/** Of the pages and items that an operation is about, those that are hidden. */
export function hiddenOf(op: Operation, board: Board): ReadonlySet<Id> {
  const { pages, items } = TYPES[op.kind].about(op);
  const hidden = new Set<Id>();
  for (const id of pages) if (board.pages.get(id)?.hidden) hidden.add(id);
  const page = board.pages.get(pages[0] ?? '');
  for (const id of items) if (isHidden(page?.items.get(id))) hidden.add(id);
  return hidden;
}

/**
 * What a student is sent of an operation.
 * @param before what `hiddenOf` said before it
 * @param after the board after it; where it doesn't change what is hidden, any later one will do
 * @param viewer who is told; `ANY_STUDENT` for what all are told of whom nothing else is known
 */
export function projectFor(
  op: Operation,
  before: ReadonlySet<Id>,
  after: Board,
  viewer: Viewer,
): ProjectedOperation {
  return TYPES[op.kind].project(op, { before, after, viewer });
}

/** Whether an operation is taken out with the data of those who are deleted; see `takeOut`. */
export function redact(op: Operation, by: Id, deletion: Redaction): boolean {
  return TYPES[op.kind].redact(op, by, deletion);
}

/** All that an operation adds, takes out or brings back. */
export function touchedBy(op: Operation): readonly Id[] {
  return [op.id, ...TYPES[op.kind].touches(op)];
}
