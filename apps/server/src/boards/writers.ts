import { newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { BoardWriter } from '@cuaderno/contract/board-writer';
import { eq } from 'drizzle-orm';
import { tutors } from '../accounts/tables.js';
import type { Database } from '../database/index.js';
import { boardWriters } from './tables.js';

/** Everyone of whom there is something in the log, with the number of the board. */
const WROTE = `(SELECT DISTINCT "by" FROM operations
  WHERE board = (SELECT num FROM boards WHERE id = ?1) AND kind <> 'tombstone')`;
/** What they were called in lessons of this board's tutor, and as tutors; what a file called them comes last. */
const NAMES = `SELECT p.id, p.name, p.name_ordinal, p.role FROM people p
    JOIN lessons l ON l.id = p.lesson JOIN courses c ON c.id = l.course
    WHERE p.id IN ${WROTE} AND c.tutor =
      (SELECT k.tutor FROM boards b JOIN courses k ON k.id = b.course WHERE b.id = ?1)
  UNION ALL SELECT id, name, 1, 'tutor' FROM tutors WHERE id IN ${WROTE}
  UNION ALL SELECT person, name, name_ordinal, role FROM board_writers WHERE board = ?1`;

/** Who wrote on boards, in whatever lesson. */
export class BoardWriters {
  constructor(private readonly db: Database) {}

  /** In the order of their names. */
  async of(board: Id): Promise<BoardWriter[]> {
    const [rows] = await this.db.raw([{ sql: NAMES, params: [board] }]);
    const known = new Map<Id, BoardWriter>();
    for (const [id, name, nameOrdinal, role] of rows as [Id, string, number, BoardWriter['role']][])
      if (!known.has(id)) known.set(id, { id, name, nameOrdinal, role });
    return [...known.values()].sort(
      (a, b) => a.name.localeCompare(b.name) || a.nameOrdinal - b.nameOrdinal,
    );
  }

  /** Those who wrote on any of these boards. */
  async ofAll(boards: readonly Id[]): Promise<BoardWriter[]> {
    const known = new Map<Id, BoardWriter>();
    for (const board of boards)
      for (const writer of await this.of(board)) known.set(writer.id, writer);
    return [...known.values()];
  }

  /** Those whom a file names. */
  async came(board: Id, people: readonly BoardWriter[]): Promise<void> {
    for (const { id: person, name, nameOrdinal, role } of people)
      await this.db
        .insert(boardWriters)
        .values({ board, person, name, nameOrdinal, role })
        .onConflictDoNothing();
  }

  /**
   * Who is meant by names that a file gives its authors: the tutor by theirs, who wrote here already, or somebody who
   * is known from now on. Nobody by none.
   */
  async named(board: Id, tutor: Id, names: readonly string[]): Promise<Map<string, Id>> {
    const wanted = new Set(names.filter((name) => name !== ''));
    const known = new Map<string, Id>();
    if (wanted.size === 0) return known;
    for (const { id, name } of await this.of(board)) if (!known.has(name)) known.set(name, id);
    const [own] = await this.db.select().from(tutors).where(eq(tutors.id, tutor));
    if (own) known.set(own.name, tutor);
    const fresh = [...wanted].filter((name) => !known.has(name));
    const people = fresh.map((name) => ({
      id: newId(),
      name,
      nameOrdinal: 1,
      role: 'student' as const,
    }));
    await this.came(board, people);
    for (const { id, name } of people) known.set(name, id);
    return known;
  }

  /** A copy names whom its model names. */
  async copied(from: Id, to: Id): Promise<void> {
    const rows = await this.db.select().from(boardWriters).where(eq(boardWriters.board, from));
    if (rows.length > 0)
      await this.db
        .insert(boardWriters)
        .values(rows.map((row) => ({ ...row, board: to })))
        .onConflictDoNothing();
  }
}
