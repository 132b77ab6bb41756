import { MAX_OPERATIONS } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { Operation } from '@cuaderno/core/ops';
import { inMessages, pack, packMessage } from '@cuaderno/core/wire';

export { PendingStore } from '../../live/pending-store';

/** What was done too late on a board, as it is offered to the server: in as many messages as it takes. */
export function lateBatches(board: Id, ops: readonly Operation[]): Blob[] {
  return inMessages(ops, MAX_OPERATIONS, pack).map(
    (batch) =>
      new Blob([packMessage({ kind: 'ops', board, ops: batch }) as Uint8Array<ArrayBuffer>]),
  );
}
