import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { lessons } from '../lessons/tables.js';

/** Hours that were corrected by hand. The last one counts; all stay to be seen. */
export const hourCorrections = sqliteTable(
  'hour_corrections',
  {
    id: text().primaryKey(),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    /** How long the lesson counts from then on. */
    minutes: integer().notNull(),
    why: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [index('hour_corrections_by_lesson').on(table.lesson)],
);
