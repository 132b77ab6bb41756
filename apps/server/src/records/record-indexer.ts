import { recordTitle } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, asc, eq, isNotNull, isNull, lte, max } from 'drizzle-orm';
import type { FastifyBaseLogger } from 'fastify';
import PQueue from 'p-queue';
import { boards, operations } from '../boards/tables.js';
import type { Database } from '../database/index.js';
import { lessonBoards, lessons, recordBoards } from '../lessons/tables.js';
import type { IndexingState as Progress } from '@cuaderno/contract/records';
import type { RecordWriter } from './record-writer.js';
import { records } from './tables.js';

/** Where a record ends on one of the boards of its lesson. */
interface BoardEnd {
  readonly board: Id;
  readonly title: string;
  /** Last place in the board's log that belongs to it. */
  readonly seq: number;
  readonly pageCount: number;
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
   * @param ends all boards of the lesson, in the order in which they came
   */
  async begin(lesson: Id, at: number, ends: readonly BoardEnd[]): Promise<void> {
    await this.insert(lesson, at, ends);
    this.queue(lesson);
  }

  /** Takes up what was left when the server stopped: records half made, and lessons closed without one. */
  async resume(): Promise<void> {
    const bare = await this.db
      .select({ id: lessons.id, closedAt: lessons.closedAt })
      .from(lessons)
      .leftJoin(records, eq(records.lesson, lessons.id))
      .where(and(isNotNull(lessons.closedAt), isNull(records.lesson)));
    for (const { id, closedAt } of bare)
      await this.insert(id, closedAt!, await this.endsOf(id, closedAt!));
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

  /** Where the record of a lesson that was closed without one ends on its boards. */
  private async endsOf(lesson: Id, closedAt: number): Promise<BoardEnd[]> {
    const ends = await this.db
      .select({ board: boards.id, title: boards.title, seq: max(operations.seq) })
      .from(lessonBoards)
      .innerJoin(boards, eq(boards.id, lessonBoards.board))
      .leftJoin(operations, and(eq(operations.board, boards.num), lte(operations.at, closedAt)))
      .where(eq(lessonBoards.lesson, lesson))
      .groupBy(boards.id)
      .orderBy(asc(lessonBoards.place));
    return ends.map((end) => ({ ...end, seq: end.seq ?? 0, pageCount: 0 }));
  }

  private async insert(lesson: Id, sealedAt: number, ends: readonly BoardEnd[]): Promise<void> {
    const used = await this.used(lesson);
    const seen = ends.filter(({ board }) => used.has(board));
    // A lesson in which nothing was seen or done has the board on which it was opened.
    const own = seen.length > 0 ? seen : ends.slice(0, 1);
    const title = recordTitle(own.map((end) => end.title));
    const pageCount = own.reduce((sum, end) => sum + end.pageCount, 0);
    await this.db.batch([
      this.db.insert(records).values({ lesson, sealedAt, title, pageCount }),
      ...own.map((end, place) =>
        this.db
          .insert(recordBoards)
          .values({ lesson, place, board: end.board, title: end.title, seq: end.seq }),
      ),
    ]);
  }

  /** The boards that somebody saw or wrote on in a lesson. */
  private async used(lesson: Id): Promise<Set<Id>> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT board FROM page_turns WHERE lesson = ?1 UNION
          SELECT lb.board FROM lesson_boards lb JOIN boards b ON b.id = lb.board
          WHERE lb.lesson = ?1 AND lb.board NOT IN (SELECT board FROM page_turns WHERE lesson = ?1)
            AND EXISTS (SELECT 1 FROM operations o WHERE o.board = b.num AND o.lesson = ?1)`,
        params: [lesson],
      },
    ]);
    return new Set((rows as [Id][]).map(([board]) => board));
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
