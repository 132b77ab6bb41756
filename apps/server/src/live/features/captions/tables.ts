import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { lessons } from '../../../lessons/tables.js';

/** Lines of what was said in a lesson, as somebody typed them. */
export const captions = sqliteTable(
  'captions',
  {
    id: text().primaryKey(),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    by: text().notNull(),
    text: text().notNull(),
    /** When typing it began, and when it was done, in ms since 1970. */
    fromAt: integer('from_at').notNull(),
    at: integer().notNull(),
  },
  (table) => [index('captions_by_lesson').on(table.lesson)],
);

/** Who types them just now, or did when the lesson closed; nobody where there is no row. */
export const captionWriters = sqliteTable('caption_writers', {
  lesson: text()
    .primaryKey()
    .references(() => lessons.id),
  person: text().notNull(),
});
