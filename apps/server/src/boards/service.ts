import { newId } from '@cuaderno/core';
import { and, asc, desc, eq, gt, isNull, min } from 'drizzle-orm';
import PQueue from 'p-queue';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import type { FileInfo, KnownFiles } from '../files/known-files.js';
import { boardFiles } from '../files/tables.js';
import { ProblemError } from '../problems/index.js';
import { boards, operations, UNFINISHED } from './tables.js';

export interface BoardInfo {
  readonly id: string;
  readonly course: string;
  readonly title: string;
  readonly createdAt: number;
}

/** The file that a board is made of. */
export interface BoardFile {
  readonly hash: string;
  readonly bytes: number;
  readonly name: string;
  readonly pages: number;
  /** The file that it was made of, if it isn't as it came. */
  readonly madeOf?: string | null;
}

/** A file that is laid on a board. */
export interface BroughtFile extends FileInfo {
  /** What it was called. */
  readonly name: string;
  /** The file that it was made of, if it isn't as it came. */
  readonly madeOf?: string | null;
}

const COLUMNS = {
  id: boards.id,
  course: boards.course,
  title: boards.title,
  createdAt: boards.createdAt,
};

/** Which boards there are and whose; what is on them is in their logs. */
export class Boards {
  /** Each move reads how boards stand and writes it anew: two at once would forget one another. */
  private readonly moves = new PQueue({ concurrency: 1 });

  constructor(
    private readonly db: Database,
    readonly known: KnownFiles,
  ) {}

  /** A new board, with the file it is made of if there is one; all in one commit. */
  async make(course: string, title: string, file?: BoardFile): Promise<BoardInfo> {
    const board = { id: newId(), course, title, createdAt: Date.now() };
    const place = await this.firstPlace(course);
    const add = this.db.insert(boards).values({ ...board, place });
    if (!file) {
      await add;
      return board;
    }
    const { hash, bytes, name, pages, madeOf } = file;
    await this.db.batch([
      add,
      this.known.insert({ hash, bytes, type: 'application/pdf' }),
      this.db.insert(boardFiles).values({ board: board.id, hash, name, pages, madeOf }),
    ]);
    return board;
  }

  /** A board with the files of another if there is one, not to be seen until it is `finished`. */
  async begin(
    course: string,
    title: string,
    like: string | null,
  ): Promise<BoardInfo & { num: number }> {
    const board = { id: newId(), course, title, createdAt: Date.now() };
    const place = await this.firstPlace(course);
    const [made] = await this.db
      .insert(boards)
      .values({ ...board, place, removedAt: UNFINISHED })
      .returning({ num: boards.num });
    if (like) await this.shareFiles(like, board.id);
    return { ...board, num: made!.num };
  }

  async finished(id: string): Promise<void> {
    await this.db.update(boards).set({ removedAt: null }).where(eq(boards.id, id));
  }

  /** A board that was begun and can't be finished was never there. */
  async giveUp(id: string, num: number): Promise<void> {
    await this.db.batch([
      this.db.delete(boardFiles).where(eq(boardFiles.board, id)),
      this.db.delete(operations).where(eq(operations.board, num)),
      this.db.delete(boards).where(eq(boards.id, id)),
    ]);
  }

  /** Files of one board may be seen on another from now on. */
  async shareFiles(from: string, to: string): Promise<void> {
    const rows = await this.db.select().from(boardFiles).where(eq(boardFiles.board, from));
    if (rows.length === 0) return;
    // None of their pages are owed to this board: it has what was brought along.
    const shared = rows.map((row) => ({ ...row, board: to, pages: 0 }));
    await this.db.insert(boardFiles).values(shared).onConflictDoNothing();
  }

  /** A file may be seen on this board from now on. */
  async addFile(
    board: string,
    { hash, bytes, type, name, madeOf = null }: BroughtFile,
  ): Promise<void> {
    await this.db.batch([
      this.known.insert({ hash, bytes, type }),
      this.db
        .insert(boardFiles)
        .values({ board, hash, name, pages: 0, madeOf })
        .onConflictDoNothing(),
    ]);
  }

  /** A file that is stored may be seen on this board, too. */
  async useFile(board: string, hash: string): Promise<void> {
    const row = { board, hash, name: '', pages: 0 };
    await this.db.insert(boardFiles).values(row).onConflictDoNothing();
  }

  /** No page of this file is owed to the board any more, wherever those that came are by now. */
  async allBrought(board: string, hash: string): Promise<void> {
    await this.db
      .update(boardFiles)
      .set({ pages: 0 })
      .where(and(eq(boardFiles.board, board), eq(boardFiles.hash, hash)));
  }

  /** The file that one on this board was made of first; itself, if it is as it came. */
  async originOf(board: string, hash: string): Promise<string> {
    const [row] = await this.db
      .select({ madeOf: boardFiles.madeOf })
      .from(boardFiles)
      .where(and(eq(boardFiles.board, board), eq(boardFiles.hash, hash)));
    return row?.madeOf ?? hash;
  }

  /** In the order that their tutor has given them. */
  ofCourse(course: string): Promise<BoardInfo[]> {
    return this.db
      .select(COLUMNS)
      .from(boards)
      .where(and(eq(boards.course, course), isNull(boards.removedAt)))
      .orderBy(asc(boards.place), desc(boards.createdAt));
  }

  /** Those that were taken out of a course, the last first. */
  takenOut(course: string): Promise<BoardInfo[]> {
    return this.db
      .select(COLUMNS)
      .from(boards)
      .where(and(eq(boards.course, course), gt(boards.removedAt, UNFINISHED)))
      .orderBy(desc(boards.removedAt));
  }

  /** Puts a board before another of its course, or at the end; of two moves the later holds. */
  async move(board: BoardInfo, before: string | null): Promise<void> {
    await this.moves.add(() => this.place(board, before));
  }

  private async place(board: BoardInfo, before: string | null): Promise<void> {
    const others = (await this.ofCourse(board.course)).filter(({ id }) => id !== board.id);
    const found = others.findIndex(({ id }) => id === before);
    others.splice(found < 0 ? others.length : found, 0, board);
    const [first, ...rest] = others.map(({ id }, place) =>
      this.db.update(boards).set({ place }).where(eq(boards.id, id)),
    );
    await this.db.batch([first!, ...rest]);
  }

  async remove(id: string): Promise<void> {
    await this.db.update(boards).set({ removedAt: Date.now() }).where(eq(boards.id, id));
  }

  /** Brings a board back. Throws `not-found` where this tutor has taken out no such board. */
  async restore(id: string, tutor: string): Promise<BoardInfo> {
    const [row] = await this.db
      .select(COLUMNS)
      .from(boards)
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(and(eq(boards.id, id), eq(courses.tutor, tutor), gt(boards.removedAt, UNFINISHED)));
    if (!row) throw new ProblemError('not-found');
    await this.finished(id);
    return row;
  }

  private async firstPlace(course: string): Promise<number> {
    const [row] = await this.db
      .select({ least: min(boards.place) })
      .from(boards)
      .where(eq(boards.course, course));
    return (row?.least ?? 1) - 1;
  }

  /** Throws `not-found` where this tutor has no such board. */
  async one(id: string, tutor: string): Promise<BoardInfo> {
    const [row] = await this.db
      .select(COLUMNS)
      .from(boards)
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(and(eq(boards.id, id), eq(courses.tutor, tutor), isNull(boards.removedAt)));
    if (!row) throw new ProblemError('not-found');
    return row;
  }

  async title(id: string): Promise<string> {
    const [row] = await this.db.select(COLUMNS).from(boards).where(eq(boards.id, id));
    return row?.title ?? '';
  }

  /** The tutor whose board it is. */
  async owner(id: string): Promise<string> {
    const [row] = await this.db
      .select({ tutor: courses.tutor })
      .from(boards)
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(eq(boards.id, id));
    if (!row) throw new ProblemError('not-found');
    return row.tutor;
  }

  allFiles(): Promise<(typeof boardFiles.$inferSelect)[]> {
    return this.db.select().from(boardFiles);
  }

  async fileOfTutor(tutor: string, hash: string): Promise<boolean> {
    const rows = await this.db
      .select({ hash: boardFiles.hash })
      .from(boardFiles)
      .innerJoin(boards, eq(boards.id, boardFiles.board))
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(and(eq(courses.tutor, tutor), eq(boardFiles.hash, hash)))
      .limit(1);
    return rows.length > 0;
  }

  /** Whether a file is on a board of a course. */
  async fileOfCourse(course: string, hash: string): Promise<boolean> {
    const rows = await this.db
      .select({ hash: boardFiles.hash })
      .from(boardFiles)
      .innerJoin(boards, eq(boards.id, boardFiles.board))
      .where(and(eq(boards.course, course), eq(boardFiles.hash, hash), isNull(boards.removedAt)))
      .limit(1);
    return rows.length > 0;
  }
}
