import { changePage, filesForStudents, mixedFiles, operation } from '@cuaderno/core';
import type { Actor, Board, FileHash, Id, Operation, PrintedPage } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import { Readable } from 'node:stream';
import type { FileStore } from '../files/store.js';
import type { LiveLesson } from '../lessons/live-lesson.js';
import type { Lessons } from '../lessons/service.js';
import type { LessonBus } from '../live/lesson-bus.js';
import type { PdfReader } from '../pdf/pdf-reader.js';
import type { Imports } from '../pdf-imports/import.js';
import type { Boards } from '../boards/service.js';

/** Which files students of a board may have in a lesson, as it is now; reckoned once for each state of it. */
const known = new WeakMap<
  Board,
  { readonly since: number; readonly files: ReadonlySet<FileHash> }
>();

/** How long is waited after pages were taken out for others to be, in ms: a file is taken apart once for all of them. */
const SOON = 20_000;

/**
 * Keeps the files of pages that are hidden or were taken out from students. A PDF is sent whole, so one that has
 * such a page beside others that are shown is taken apart: from then on the pages lie in files of
 * their own. Until that is done students get none of it.
 */
export class HiddenFiles {
  private readonly running = new Map<Id, Promise<void>>();
  private readonly coming = new Map<Id, ReturnType<typeof setTimeout>>();

  constructor(
    private readonly boards: Boards,
    private readonly bus: LessonBus,
    private readonly store: FileStore,
    private readonly reader: PdfReader,
    private readonly imports: Imports,
    private readonly log: FastifyBaseLogger,
    private readonly lessons: Pick<Lessons, 'onBoard'>,
  ) {}

  /** Whether a student of an open lesson may have a file: it is on a page that is shown, of a board that the class has. */
  async mayHaveIn(lesson: LiveLesson, file: FileHash): Promise<boolean> {
    for (const { id, shown } of lesson.allBoards())
      if (shown && (await this.mayHave(id, file))) return true;
    return false;
  }

  /** Whether students of a board may have a file. */
  async mayHave(board: Id, file: FileHash): Promise<boolean> {
    const host = this.bus.open(board) ?? (await this.bus.host(board));
    if (!host) return false;
    const state = host.board;
    const since = this.since(board);
    let here = known.get(state);
    if (here?.since !== since)
      known.set(state, (here = { since, files: filesForStudents(state, since) }));
    // A server that was stopped in the middle goes on when the file is asked for.
    if (!here.files.has(file) && mixedFiles(state, since).has(file)) this.changed(board);
    return here.files.has(file);
  }

  /** Since when the lesson on a board is open, in ms since 1970; `Infinity` where none is. */
  private since(board: Id): number {
    return this.lessons.onBoard(board)?.openedAt ?? Infinity;
  }

  /**
   * Pages were taken out or came back: files are taken apart when no others have been for a while. Nobody is there yet
   * for whom that must not wait; when the lesson begins, it doesn't.
   */
  changedSoon(board: Id): void {
    clearTimeout(this.coming.get(board));
    this.coming.set(board, setTimeout(() => this.changed(board), SOON).unref());
  }

  /** Something is hidden, taken out or shown from now on: takes files apart where that is needed. */
  changed(board: Id): void {
    clearTimeout(this.coming.get(board));
    this.coming.delete(board);
    const before = this.running.get(board) ?? Promise.resolve();
    // Pages that are still coming would be of the file that was taken apart.
    const work = before
      .then(() => this.imports.settled())
      .then(() => this.separate(board))
      .catch((error: unknown) => {
        this.log.error({ err: error, board }, 'a file with pages hidden was not taken apart');
      })
      .finally(() => {
        if (this.running.get(board) === work) this.running.delete(board);
      });
    this.running.set(board, work);
  }

  /** Waits for what is under way. */
  async settled(): Promise<void> {
    for (const timer of this.coming.values()) clearTimeout(timer);
    this.coming.clear();
    while (this.running.size > 0) await Promise.all(this.running.values());
  }

  private async separate(board: Id): Promise<void> {
    const host = await this.bus.host(board);
    if (!host) return;
    const mixed = await host.between((state) => mixedFiles(state, this.since(board)));
    if (mixed.size === 0) return;
    const owner: Actor = {
      id: await this.boards.owner(board),
      role: 'tutor',
      trust: 'hands',
      imports: true,
    };
    for (const [file, pages] of mixed) {
      const places = await this.takeApart(board, file, pages);
      const ops = await host.between((state) =>
        pages.flatMap(({ id, paper }): Operation[] => {
          const place = places.get(id);
          const now = state.pages.get(id)?.paper;
          // A tint may have come meanwhile; it stays.
          const change =
            place && now?.kind === 'pdf' && now.file === paper.file
              ? changePage(state, id, { paper: { ...now, ...place } })
              : null;
          return change ? [operation(change)] : [];
        }),
      );
      await host.applyAs(ops, owner);
      await this.boards.allBrought(board, file);
    }
  }

  /** Where each of the pages lies when the file has been taken apart. */
  private async takeApart(
    board: Id,
    file: FileHash,
    pages: readonly PrintedPage[],
  ): Promise<Map<Id, { file: FileHash; number: number }>> {
    const hidden = pages.filter((page) => page.kept);
    // A page may lie on the board more than once, shown here and hidden there: then it is shown.
    const shown = new Set(pages.filter((page) => !page.kept).map(({ paper }) => paper.number));
    const numbers = [...new Set(hidden.map(({ paper }) => paper.number))].filter(
      (number) => !shown.has(number),
    );
    const { rest, taken } = await this.reader.separate(this.store.path(file), numbers);
    const name = 'Pages of a file';
    const madeOf = await this.boards.originOf(board, file);
    const keep = async (bytes: Uint8Array): Promise<FileHash> => {
      const stored = await this.store.put(Readable.from([Buffer.from(bytes)]), Infinity);
      const row = { hash: stored.hash, bytes: stored.bytes, type: 'application/pdf', name, madeOf };
      await this.boards.addFile(board, row);
      return stored.hash;
    };
    const without = await keep(rest);
    const single = new Map<number, FileHash>();
    for (const [i, number] of numbers.entries()) single.set(number, await keep(taken[i]!));
    return new Map(
      pages.map(({ id, paper, kept }) => {
        const own = kept ? single.get(paper.number) : undefined;
        return [id, own ? { file: own, number: 1 } : { file: without, number: paper.number }];
      }),
    );
  }
}
