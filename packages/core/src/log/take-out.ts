import type { Id } from '../id/index.js';
import type { Entry, KeptEntry, Nothing } from './entry.js';

/**
 * All entries that hold something which these people drew or typed: what made it, what others did to it that shows
 * what it was (a line that was moved or cut carries its ink), and nothing else. What stands in their place does
 * nothing, has the same id and the same place; so no entry changes its number, a late copy of one is still known,
 * and whatever else was done to what is gone does nothing by itself.
 *
 * What these people did to the work of others stays: it is that work now.
 * @param entries a board's whole log, from the first; what was taken out before may be among them
 */
export function takeOut(entries: Iterable<KeptEntry>, who: ReadonlySet<Id>): Entry<Nothing>[] {
  const theirs = new Set<Id>();
  const out: Entry<Nothing>[] = [];
  for (const entry of entries)
    if (isOf(entry.op, entry.by)) out.push({ ...entry, op: { id: entry.op.id, kind: 'nothing' } });
  return out;

  function isOf(op: KeptEntry['op'], by: Id): boolean {
    switch (op.kind) {
      case 'ink.add':
      case 'item.add':
        if (who.has(by)) theirs.add(op.id);
        return who.has(by);
      case 'ink.cut':
        // Pieces are their line's writer's, whoever cut it.
        if (theirs.has(op.item)) for (const { id } of op.pieces) theirs.add(id);
        return theirs.has(op.item);
      case 'ink.mend':
      case 'item.change':
        return theirs.has(op.item);
      // What can't be read may be anything of theirs.
      case 'unreadable':
        return who.has(by);
      default:
        return false;
    }
  }
}
