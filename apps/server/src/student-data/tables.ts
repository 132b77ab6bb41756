import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { DeletionReport } from '@cuaderno/contract/student-data';

/** What was done when a student's data was deleted. Whose it was isn't written here. */
export const deletions = sqliteTable(
  'deletions',
  {
    id: text().primaryKey(),
    tutor: text().notNull(),
    /** Counts this tutor's, from 1: it is in the name that stands in place of the student's. */
    number: integer().notNull(),
    at: integer().notNull(),
    report: text({ mode: 'json' }).$type<DeletionReport>().notNull(),
  },
  (table) => [index('deletions_by_tutor').on(table.tutor, table.number)],
);
