import { keysBetween, operation } from '@cuaderno/core';
import type { Id, Operation } from '@cuaderno/core';
import type { Taken, TakenItem } from '@cuaderno/formats/pdf-annotations';
import { Readable } from 'node:stream';
import type { FileStore, StoredFile } from '../files/store.js';
import type { Workers } from '../workers/plugin.js';

/** How much was taken of what was written on a PDF, as `Taken` counts it. */
export type LiftedSum = Pick<Taken, 'count' | 'comments' | 'stayed' | 'attached'>;

export const NOTHING_LIFTED: LiftedSum = { count: 0, comments: 0, stayed: 0, attached: 0 };

/** A PDF that is brought to a board, without what was written on it with other programs. */
export interface Lifted {
  /** What is shown: the file itself where nothing was written on it. */
  readonly file: StoredFile;
  /** The file that it was made of; `null` where it is the file itself. */
  readonly madeOf: string | null;
  /** What was written, by the numbers of the pages. */
  readonly written: ReadonlyMap<number, readonly TakenItem[]>;
  readonly sum: LiftedSum;
  /** The file may be cleared away from now on, unless something names it. */
  release(): void;
}

/** Takes annotations out of PDFs as they come, so that they can be written on like all else. */
export class Lifting {
  constructor(
    private readonly store: FileStore,
    private readonly workers: Workers,
  ) {}

  async lift(file: StoredFile): Promise<Lifted> {
    const taken = await this.workers.annotationsOf(file.path);
    const { count, comments, stayed, attached } = taken ?? NOTHING_LIFTED;
    const sum = { count, comments, stayed, attached };
    if (!taken?.file) {
      const release = this.store.hold(file.hash);
      return { file, madeOf: null, written: new Map(), sum, release };
    }
    const stored = await this.store.put(Readable.from([Buffer.from(taken.file)]), Infinity);
    const release = this.store.hold(stored.hash);
    return { file: stored, madeOf: file.hash, written: taken.pages, sum, release };
  }
}

/** Operations that lay what was written on a page that comes with them. */
export function writing(page: Id, items: readonly TakenItem[]): Operation[] {
  const things = items.filter(({ kind }) => kind === 'thing').length;
  const orders = things > 0 ? keysBetween(null, null, things) : [];
  /** Cover sheets, by their names in the file: what was written on them says so. */
  const covers = new Map<string, Id>();
  let next = 0;
  return items.map((item): Operation => {
    if (item.kind === 'ink') {
      const on = item.on && covers.get(item.on);
      return operation({ kind: 'ink.add', page, ink: item.ink, ...(on ? { on } : {}) });
    }
    const on = item.thing.on ? (covers.get(item.thing.on) ?? null) : null;
    const thing = { ...item.thing, on, group: null, order: orders[next++]! };
    const op = operation({ kind: 'item.add', page, item: thing });
    if (item.thing.kind === 'cover') covers.set(item.name, op.id);
    return op;
  });
}
