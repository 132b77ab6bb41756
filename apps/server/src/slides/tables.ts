import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** What changed when the slides of a board were brought in. */
export const boardReports = sqliteTable('board_reports', {
  board: text().primaryKey(),
  /** An `ImportReport`, as JSON. */
  report: text().notNull(),
  /** When its tutor has looked at it; `null` until then. */
  seenAt: integer('seen_at'),
});
