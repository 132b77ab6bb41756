import { coverPage, pack, pageSnapshot } from '@cuaderno/core';
import PQueue from 'p-queue';
import type { Records } from './service.js';

/** Pictures that are kept, and bytes of one that is: they are asked for on each visit of a list. */
const KEPT = 100;
const MOST_BYTES = 200_000;

interface Cover {
  readonly version: string;
  /** The page as a packed snapshot; `null` where there is no page. */
  readonly page: Buffer | null;
}

/** A page of each record, to draw it small where records are listed. */
export class RecordCovers {
  /** By lesson, those asked for last at the end. What was taken out of a record isn't kept beside what it is now. */
  private readonly kept = new Map<string, Cover>();
  /** A list asks for all of its pictures at once, and each opens a record: one after the other, lessons go on between. */
  private readonly queue = new PQueue({ concurrency: 1 });

  constructor(private readonly records: Pick<Records, 'board'>) {}

  /** The page with most ink as a packed snapshot; `null` where there is no page. */
  of(lesson: string, version: string): Promise<Buffer | null> {
    return this.queue.add(async () => {
      const known = this.kept.get(lesson);
      const cover = known?.version === version ? known : await this.made(lesson, version);
      this.kept.delete(lesson);
      if ((cover.page?.length ?? 0) <= MOST_BYTES) this.kept.set(lesson, cover);
      const [oldest] = this.kept.keys();
      if (this.kept.size > KEPT && oldest) this.kept.delete(oldest);
      return cover.page;
    });
  }

  private async made(lesson: string, version: string): Promise<Cover> {
    const page = coverPage(await this.records.board({ lesson }));
    return { version, page: page ? Buffer.from(pack(pageSnapshot(page))) : null };
  }
}
