import { emptyBoard, fold, isNamedIn, pagesInOrder, takeOut, typedOn } from '@cuaderno/core';
import type { Entry, Id, Tombstone } from '@cuaderno/core';
import type { MessagePort } from 'node:worker_threads';
import { LogStore } from '../boards/log-store.js';
import { lentDatabase } from '../database/index.js';

export interface TakeOutTask {
  /** Leads to the database. */
  readonly port: MessagePort;
  readonly boards: readonly { readonly num: number; readonly id: Id }[];
  readonly people: readonly Id[];
  /** Whether what these people drew is to be taken out, or only the name is looked for. */
  readonly ink: boolean;
  readonly name: string;
}

/** What there is to take out of a board's log. */
export interface TakenFromBoard {
  readonly num: number;
  readonly id: Id;
  /** Place of its last entry. */
  readonly last: number;
  readonly out: readonly Entry<Tombstone>[];
  /** Pages, from 1, on which the name is typed once that is done. */
  readonly named: readonly number[];
}

/** Reads boards for what people drew on them, and for where a name is typed. Changes nothing. */
export async function takeOutOf({
  port,
  boards,
  people,
  ink,
  name,
}: TakeOutTask): Promise<TakenFromBoard[]> {
  const db = lentDatabase(port);
  try {
    const logs = new LogStore(db);
    const who = new Set(people);
    const found: TakenFromBoard[] = [];
    for (const { num, id } of boards) {
      const entries = await logs.entries(num, 0);
      const out = ink ? takeOut(entries, who) : [];
      const gone = new Map(out.map((entry) => [entry.seq, entry]));
      const board = fold(
        emptyBoard(id),
        entries.map((entry) => gone.get(entry.seq) ?? entry),
      );
      const named = pagesInOrder(board).flatMap((page, i) =>
        isNamedIn(`${page.name}\n${typedOn(page)}`, name) ? [i + 1] : [],
      );
      found.push({ num, id, last: entries.at(-1)?.seq ?? 0, out, named });
    }
    return found;
  } finally {
    await db.close();
  }
}
