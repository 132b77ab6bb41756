import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** A stored file: once, however often it was brought. */
export const files = sqliteTable('files', {
  /** SHA-256, hexadecimal */
  hash: text().primaryKey(),
  bytes: integer().notNull(),
  type: text().notNull(),
  createdAt: integer('created_at').notNull(),
});

/** Which boards show which files: anyone who may see the board may see them. */
export const boardFiles = sqliteTable(
  'board_files',
  {
    board: text().notNull(),
    hash: text()
      .notNull()
      .references(() => files.hash),
    /** What the file was called when it was brought. */
    name: text().notNull(),
    /** Pages the file has; all of them are on the board once its import is done. */
    pages: integer().notNull(),
    /** The file that it was made of: the slides of a PDF, the whole of which it is a part. */
    madeOf: text('made_of'),
  },
  (table) => [
    primaryKey({ columns: [table.board, table.hash] }),
    index('board_files_by_hash').on(table.hash),
  ],
);
