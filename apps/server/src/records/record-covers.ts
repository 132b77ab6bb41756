import { coverPage, pack, pageSnapshot } from '@cuaderno/core';
import PQueue from 'p-queue';
import type { Records } from './service.js';

/** Pictures that are kept, and bytes of one that is: they are asked for on each visit of a list. */
const KEPT = 200;
const MOST_BYTES = 500_000;

/** A page of each record, to draw it small where records are listed. */
export class RecordCovers {
  /** By lesson and version, those asked for last at the end. */
  private readonly kept = new Map<string, Buffer | null>();
  /** A list asks for all of its pictures at once, and each opens a record: one after the other, lessons go on between. */
  private readonly queue = new PQueue({ concurrency: 1 });

  constructor(private readonly records: Pick<Records, 'board'>) {}

  /** The page with most ink as a packed snapshot; `null` where there is no page. */
  async of(lesson: string, version: string): Promise<Buffer | null> {
    const key = `${lesson} ${version}`;
    return this.queue.add(async () => {
      const known = this.kept.get(key);
      if (known !== undefined) {
        this.kept.delete(key);
        this.kept.set(key, known);
        return known;
      }
      const page = coverPage(await this.records.board({ lesson }));
      const packed = page ? Buffer.from(pack(pageSnapshot(page))) : null;
      if (!packed || packed.length <= MOST_BYTES) this.kept.set(key, packed);
      for (const [oldest] of this.kept) {
        if (this.kept.size <= KEPT) break;
        this.kept.delete(oldest);
      }
      return packed;
    });
  }
}
