import type { Id } from '@cuaderno/core';
import { and, eq, isNotNull, isNull, lte, max } from 'drizzle-orm';
import type { FastifyBaseLogger } from 'fastify';
import PQueue from 'p-queue';
import { boards, operations } from '../boards/tables.js';
import type { Database } from '../database/index.js';
import { lessons } from '../lessons/tables.js';
import type { IndexingState as Progress } from '@cuaderno/contract/records';
import type { RecordWriter } from './record-writer.js';
import { records } from './tables.js';

/** A lesson that was closed. */
interface Closed {
  readonly id: Id;
  readonly board: Id;
}

/** As it was written down. */
interface Known {
  readonly lesson: Id;
  readonly wholeAt: number | null;
  readonly pageCount: number;
}

/**
 * Makes records. Closing a lesson only writes down where its record ends; what is read off the log, so that
 * the record opens, is found and is counted at once, is written down by a worker afterwards, one record after
 * the other. It is written all at once: where the server was stopped half way, it is done anew.
 */
export class RecordIndexer {
  private readonly under = new Map<Id, Progress>();
  private readonly writing = new PQueue({ concurrency: 1 });
  private readonly stopped = new AbortController();

  constructor(
    private readonly db: Database,
    private readonly writer: RecordWriter,
    /** Folder of stored files. */
    private readonly files: string,
    private readonly log: FastifyBaseLogger,
  ) {}

  /**
   * On disk when this returns: what is written on the board next week is not in the record, and nothing can be
   * taken out of it.
   *
   * @param seq last place in the board's log that belongs to it
   */
  async begin(lesson: Closed, at: number, seq: number, pageCount: number): Promise<void> {
    await this.insert(lesson, at, seq, pageCount);
    this.queue(lesson.id);
  }

  /** Takes up what was left when the server stopped: records half made, and lessons closed without one. */
  async resume(): Promise<void> {
    const bare = await this.db
      .select({ id: lessons.id, board: lessons.board, closedAt: lessons.closedAt })
      .from(lessons)
      .leftJoin(records, eq(records.lesson, lessons.id))
      .where(and(isNotNull(lessons.closedAt), isNull(records.lesson)));
    for (const { id, board, closedAt } of bare) {
      const [row] = await this.db
        .select({ seq: max(operations.seq) })
        .from(operations)
        .innerJoin(boards, eq(boards.num, operations.board))
        .where(and(eq(boards.id, board), lte(operations.at, closedAt!)));
      await this.insert({ id, board }, closedAt!, row?.seq ?? 0, 0);
    }
    const open = await this.db
      .select({ lesson: records.lesson })
      .from(records)
      .where(isNull(records.wholeAt));
    for (const { lesson } of open) this.queue(lesson);
  }

  /** How far a record is written down. */
  progress({ lesson, wholeAt, pageCount: of }: Known): Progress {
    const under = this.under.get(lesson);
    if (under) return under;
    return wholeAt === null ? { state: 'waits', done: 0, of } : { state: 'whole', done: of, of };
  }

  /** Writes a record down once more, from its log. */
  queue(lesson: Id): void {
    const known = this.under.get(lesson);
    if (known && known.state !== 'failed') return;
    this.under.set(lesson, { state: 'waits', done: 0, of: 0 });
    this.writing
      .add(() => this.write(lesson))
      .catch((error: unknown) =>
        this.log.error({ err: error, lesson }, 'a record could not be written down'),
      );
  }

  /** Resolves when nothing is under way. */
  async settled(): Promise<void> {
    await this.writing.onIdle();
  }

  /** What waits is left for the next start; what is under way is finished. */
  async close(): Promise<void> {
    this.stopped.abort();
    await this.settled();
  }

  private async insert({ id, board }: Closed, at: number, seq: number, pageCount: number) {
    const [row] = await this.db
      .select({ title: boards.title })
      .from(boards)
      .where(eq(boards.id, board));
    await this.db
      .insert(records)
      .values({ lesson: id, sealedAt: at, title: row?.title ?? '', pageCount, board, seq });
  }

  private async write(lesson: Id): Promise<void> {
    if (this.stopped.signal.aborted) return;
    try {
      await this.writer.write({ port: this.db.lend(), lesson, files: this.files }, (done, of) =>
        this.under.set(lesson, { state: 'goes-on', done, of }),
      );
      this.under.delete(lesson);
    } catch (error) {
      this.log.error({ err: error, lesson }, 'a record could not be written down');
      this.under.set(lesson, { state: 'failed', done: 0, of: 0 });
    }
  }
}
