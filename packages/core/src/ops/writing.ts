import { filesOf } from '../material/index.js';
import type { ThingSpec } from '../material/index.js';
import type { Operation } from './index.js';

/** Whether a thing is something written on the page, and no material that lies under what is written. */
export function isWritten(item: ThingSpec): boolean {
  return (
    item.kind !== 'cover' &&
    item.layer === 'ink' &&
    filesOf(item).length === 0 &&
    !item.held &&
    !item.fixed
  );
}

/** Whether an operation only adds something that a student with a pen may write, and changes nothing that is there. */
export function isWriting(
  op: Operation,
): op is Extract<Operation, { readonly kind: 'ink.add' | 'item.add' }> {
  return op.kind === 'ink.add' || (op.kind === 'item.add' && isWritten(op.item));
}
