import type { Id } from '../id/index.js';
import { redact } from '../ops/index.js';
import { isWhole } from './entry.js';
import type { Entry, KeptEntry, Tombstone } from './entry.js';

/**
 * All entries that hold something which these people drew or typed: what made it, what others did to it that shows
 * what it was (a line that was moved or cut carries its ink), and nothing else. What stands in their place does
 * nothing, has the same id and the same place; so no entry changes its number, a late copy of one is still known,
 * and whatever else was done to what is gone does nothing by itself.
 *
 * What these people did to the work of others stays: it is that work now.
 * @param entries a board's whole log, from the first; what was taken out before may be among them
 */
export function takeOut(entries: Iterable<KeptEntry>, who: ReadonlySet<Id>): Entry<Tombstone>[] {
  const deletion = { who, items: new Set<Id>() };
  const out: Entry<Tombstone>[] = [];
  for (const entry of entries) {
    // What can't be read may be anything of theirs.
    const isTheirs = isWhole(entry)
      ? redact(entry.op, entry.by, deletion)
      : entry.op.kind === 'unreadable' && who.has(entry.by);
    if (isTheirs) out.push({ ...entry, op: { id: entry.op.id, kind: 'tombstone' } });
  }
  return out;
}
