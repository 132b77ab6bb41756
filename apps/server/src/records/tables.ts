import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { lessons } from '../lessons/tables.js';

/** What a closed lesson leaves. Written once, never changed. */
export const records = sqliteTable('records', {
  lesson: text()
    .primaryKey()
    .references(() => lessons.id),
  sealedAt: integer('sealed_at').notNull(),
  title: text().notNull(),
  pageCount: integer('page_count').notNull(),
  board: text().notNull(),
  /** Place in the board's log up to which the record goes. The log is never rewritten, so neither is this. */
  seq: integer().notNull(),
});
