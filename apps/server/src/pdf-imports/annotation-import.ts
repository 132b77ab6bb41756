import { keysBetween, operation } from '@cuaderno/core';
import type { Id, Operation } from '@cuaderno/core';
import type { Taken, TakenItem } from '@cuaderno/formats/pdf-annotations';
import { Readable } from 'node:stream';
import type { FileStore, StoredFile } from '../files/store.js';
import type { PdfReader } from '../pdf/pdf-reader.js';

/** How much was taken of what was written on a PDF, as `Taken` counts it. */
export type ImportedAnnotationCounts = Pick<Taken, 'count' | 'comments' | 'stayed' | 'attached'>;

export const NO_ANNOTATIONS: ImportedAnnotationCounts = {
  count: 0,
  comments: 0,
  stayed: 0,
  attached: 0,
};

/** A PDF that is brought to a board, without what was written on it with other programs. */
export interface PdfWithoutAnnotations {
  /** What is shown: the file itself where nothing was written on it. */
  readonly file: StoredFile;
  /** The file that it was made of; `null` where it is the file itself. */
  readonly madeOf: string | null;
  /** What was written, by the numbers of the pages. */
  readonly written: ReadonlyMap<number, readonly TakenItem[]>;
  readonly sum: ImportedAnnotationCounts;
  /** The file may be cleared away from now on, unless something names it. */
  release(): void;
}

/** Takes annotations out of PDFs as they come, so that they can be written on like all else. */
export class AnnotationImport {
  constructor(
    private readonly store: FileStore,
    private readonly reader: PdfReader,
  ) {}

  async lift(file: StoredFile): Promise<PdfWithoutAnnotations> {
    const taken = await this.reader.annotationsOf(file.path);
    const { count, comments, stayed, attached } = taken ?? NO_ANNOTATIONS;
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
  const placed = items.filter(({ kind }) => kind === 'placed').length;
  const orders = placed > 0 ? keysBetween(null, null, placed) : [];
  /** Cover sheets, by their names in the file: what was written on them says so. */
  const covers = new Map<string, Id>();
  let next = 0;
  return items.map((item): Operation => {
    if (item.kind === 'ink') {
      const on = item.on && covers.get(item.on);
      return operation({ kind: 'ink.add', page, ink: item.ink, ...(on ? { on } : {}) });
    }
    const on = item.spec.on ? (covers.get(item.spec.on) ?? null) : null;
    const spec = { ...item.spec, on, group: null, order: orders[next++]! };
    const op = operation({ kind: 'item.add', page, item: spec });
    if (item.spec.kind === 'cover') covers.set(item.name, op.id);
    return op;
  });
}
