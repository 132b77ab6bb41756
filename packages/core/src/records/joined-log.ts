import type { KeptEntry } from '../log/index.js';
import { orderInRecord, pageInRecord } from './page-in-record.js';
import type { RecordBoard } from './page-in-record.js';

type KeptOperation = KeptEntry['op'];

/** What was done on one board of a record, in order. */
export interface LogOfBoard {
  readonly board: RecordBoard;
  readonly entries: readonly KeptEntry[];
}

/**
 * What was done on the boards of a record, as it happened, about the pages as they are in the record; folded onto
 * `joinBoards` of what the boards were before. Of one board alone, its own entries.
 *
 * @param first the place that the first of them gets
 */
export function joinLogs(logs: readonly LogOfBoard[], first: number): KeptEntry[] {
  if (logs.length === 1) return [...logs[0]!.entries];
  // Sorting is stable: what has one time stays in the order of its log.
  return logs
    .flatMap(({ board, entries }) => inOrderOfTime(entries).map((one) => ({ ...one, board })))
    .sort((one, other) => one.time - other.time)
    .map(({ entry, board }, i) => ({
      ...entry,
      seq: first + i,
      op: operationInRecord(entry.op, board),
    }));
}

/** None is before the one before it in its log, whatever the server's clock did. */
function inOrderOfTime(entries: readonly KeptEntry[]): { entry: KeptEntry; time: number }[] {
  let time = -Infinity;
  return entries.map((entry) => ({ entry, time: (time = Math.max(time, entry.at)) }));
}

/** An operation on a board, as one on the record. What is about the whole board is nothing there. */
export function operationInRecord(op: KeptOperation, board: RecordBoard): KeptOperation {
  const page = (id: string): string => pageInRecord(id, board);
  switch (op.kind) {
    case 'board.rename':
    case 'board.rules':
    case 'board.sheet':
      return { id: op.id, kind: 'tombstone' };
    case 'pages.add':
      return { ...op, pages: op.pages.map((spec) => specInRecord(spec, board)) };
    case 'pages.remove':
    case 'pages.restore':
      return { ...op, pages: op.pages.map(page) };
    case 'page.change':
      return {
        ...op,
        page: page(op.page),
        to: placed(op.to, board),
        from: placed(op.from, board),
      };
    case 'unreadable':
      return {
        ...op,
        page: op.page && page(op.page),
        ...(op.standIns ? { standIns: op.standIns.map((spec) => specInRecord(spec, board)) } : {}),
      };
    case 'tombstone':
      return op;
    case 'ink.add':
    case 'ink.cut':
    case 'ink.mend':
    case 'item.add':
    case 'item.change':
    case 'items.remove':
    case 'items.restore':
      return { ...op, page: page(op.page) };
  }
}

function specInRecord<Spec extends { readonly id: string; readonly order: string }>(
  spec: Spec,
  board: RecordBoard,
): Spec {
  return {
    ...spec,
    id: pageInRecord(spec.id, board),
    order: orderInRecord(spec.order, board),
  };
}

function placed<Traits extends { readonly order?: string | undefined }>(
  traits: Traits,
  board: RecordBoard,
): Traits {
  return traits.order === undefined
    ? traits
    : { ...traits, order: orderInRecord(traits.order, board) };
}
