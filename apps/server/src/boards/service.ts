import { newId } from '@cuaderno/core';
import { and, desc, eq } from 'drizzle-orm';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { boardFiles, files } from '../files/tables.js';
import { ProblemError } from '../problems/index.js';
import { boards } from './tables.js';

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
}

const COLUMNS = {
  id: boards.id,
  course: boards.course,
  title: boards.title,
  createdAt: boards.createdAt,
};

/** Which boards there are and whose; what is on them is in their logs. */
export class Boards {
  constructor(private readonly db: Database) {}

  /** A new board, with the file it is made of if there is one; all in one commit. */
  async make(course: string, title: string, file?: BoardFile): Promise<BoardInfo> {
    const board = { id: newId(), course, title, createdAt: Date.now() };
    const add = this.db.insert(boards).values(board);
    if (!file) {
      await add;
      return board;
    }
    const { hash, bytes, name, pages } = file;
    const stored = { hash, bytes, type: 'application/pdf', createdAt: Date.now() };
    await this.db.batch([
      add,
      this.db.insert(files).values(stored).onConflictDoNothing(),
      this.db.insert(boardFiles).values({ board: board.id, hash, name, pages }),
    ]);
    return board;
  }

  ofCourse(course: string): Promise<BoardInfo[]> {
    return this.db
      .select(COLUMNS)
      .from(boards)
      .where(eq(boards.course, course))
      .orderBy(desc(boards.createdAt));
  }

  /** Throws `not-found` where this tutor has no such board. */
  async one(id: string, tutor: string): Promise<BoardInfo> {
    const [row] = await this.db
      .select(COLUMNS)
      .from(boards)
      .innerJoin(courses, eq(courses.id, boards.course))
      .where(and(eq(boards.id, id), eq(courses.tutor, tutor)));
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

  async fileOn(board: string, hash: string): Promise<boolean> {
    const rows = await this.db
      .select({ hash: boardFiles.hash })
      .from(boardFiles)
      .where(and(eq(boardFiles.board, board), eq(boardFiles.hash, hash)));
    return rows.length > 0;
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
}
