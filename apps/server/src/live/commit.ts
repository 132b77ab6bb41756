import { pack, REFUSALS } from '@cuaderno/core';
import type {
  Entry,
  Id,
  Operation,
  RefusalCode,
  ServerMessage,
  ProjectedEntry,
} from '@cuaderno/core';
import { problem } from '../problems/index.js';
import type { Member } from './member.js';

/** An entry that has its place, and what students are sent of it: what all are, and those who are sent something else. */
export interface TakenOperation {
  readonly entry: Entry;
  readonly told: ProjectedEntry;
  readonly toldApart: ReadonlyMap<Id, ProjectedEntry>;
  readonly from: Member | null;
}

/** An operation whose id was taken before, by the same person. */
interface KnownEntry {
  readonly seq: number;
  readonly op: Operation;
  readonly from: Member | null;
}

/** What goes to the disk together, and who is told so afterwards. */
export class Commit {
  readonly at = Date.now();
  readonly taken: TakenOperation[] = [];
  readonly known: KnownEntry[] = [];
  readonly confirmations = new Map<Member, { seqs: number[]; ids: Id[] }>();

  readonly confirm = (member: Member | null, seq: number, id: Id): void => {
    if (!member) return;
    const list = this.confirmations.get(member) ?? { seqs: [], ids: [] };
    list.seqs.push(seq);
    list.ids.push(id);
    this.confirmations.set(member, list);
  };
}

/** Says why an operation has no place. */
export function refuse(member: Member, board: Id, id: Id, code: RefusalCode): void {
  const details = { ...problem('refused', REFUSALS[code]), type: `urn:cuaderno:${code}` };
  member.send(pack({ kind: 'refused', board, id, problem: details } satisfies ServerMessage));
}

/** Entries as messages: neighbours of one person at one time share a message. */
export function runs(on: number, entries: readonly ProjectedEntry[]): Uint8Array[] {
  const messages: Uint8Array[] = [];
  for (let i = 0; i < entries.length;) {
    const { seq: from, by, at } = entries[i]!;
    let end = i + 1;
    while (end < entries.length && entries[end]!.by === by && entries[end]!.at === at) end++;
    const ops = entries.slice(i, end).map(({ op }) => op);
    messages.push(pack({ kind: 'applied', on, from, by, at, ops } satisfies ServerMessage));
    i = end;
  }
  return messages;
}
