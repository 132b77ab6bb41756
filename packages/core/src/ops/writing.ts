import { isWritingKind } from '../kinds/index.js';
import type { ItemSpec } from '../kinds/index.js';
import type { Operation } from './index.js';

/** Whether an item is something written on the page, and no material that lies under what is written. */
export function isWritten(item: ItemSpec): boolean {
  return isWritingKind(item) && item.layer === 'ink' && !item.hidden && !item.fixed;
}

/** Whether an operation only adds something that a student with a pen may write, and changes nothing that is there. */
export function isWriting(
  op: Operation,
): op is Extract<Operation, { readonly kind: 'ink.add' | 'item.add' }> {
  return op.kind === 'ink.add' || (op.kind === 'item.add' && isWritten(op.item));
}
