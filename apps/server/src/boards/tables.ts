import type { Role } from '@cuaderno/core';
import { sql } from 'drizzle-orm';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { courses } from '../courses/tables.js';

export const boards = sqliteTable(
  'boards',
  {
    /** Short, because every operation names it. */
    num: integer().primaryKey({ autoIncrement: true }),
    id: text().notNull().unique(),
    course: text()
      .notNull()
      .references(() => courses.id),
    /** As the log has it, for lists. */
    title: text().notNull(),
    /** Its place among the boards of its course; the least comes first. */
    place: integer().notNull().default(0),
    /** When it was taken out; `UNFINISHED` while it is being copied. `null` for one that is there. */
    removedAt: integer('removed_at'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('boards_by_course').on(table.course)],
);

/** Who wrote on a board that came as a file, as the file names them. */
export const boardWriters = sqliteTable(
  'board_writers',
  {
    board: text()
      .notNull()
      .references(() => boards.id),
    person: text().notNull(),
    name: text().notNull(),
    nameOrdinal: integer('name_ordinal').notNull(),
    role: text().$type<Role>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.board, table.person] })],
);

/** A board that is not whole yet is as if taken out long ago, and is listed nowhere. */
export const UNFINISHED = 0;

/** The log. Rows are only ever added. (WITHOUT ROWID: see the migration.) */
export const operations = sqliteTable(
  'operations',
  {
    board: integer().notNull(),
    seq: integer().notNull(),
    id: text().notNull(),
    by: text().notNull(),
    at: integer().notNull(),
    lesson: text(),
    kind: text().notNull(),
    /** The page it is about, where it is about one. */
    page: text(),
    /** In which version of our words the body is: see `upgradeStored`. */
    version: integer().notNull().default(1),
    /** Ink as it is coded, for a line; else the rest of the operation, packed as on the wire. */
    body: blob({ mode: 'buffer' }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.board, table.seq] }),
    // Few are, and they are counted whenever a record is opened.
    index('operations_tombstones')
      .on(table.board, table.seq)
      .where(sql`kind = 'tombstone'`),
  ],
);
