import type { ChatTo } from '@cuaderno/core';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { lessons } from '../../../lessons/tables.js';

/** What was written in the chat, in order. */
export const chatLines = sqliteTable(
  'chat_lines',
  {
    id: text().primaryKey(),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    by: text().notNull(),
    to: text().$type<ChatTo>().notNull(),
    text: text().notNull(),
    at: integer().notNull(),
    /** When it was emptied out: nobody reads it from then on. */
    emptiedAt: integer('emptied_at'),
  },
  (table) => [index('chat_lines_by_lesson').on(table.lesson)],
);

/** Hands and signals, as they were given: what a record says about them. */
export const gestures = sqliteTable(
  'gestures',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    person: text().notNull(),
    /** `hand`, `hand.down`, a signal, or `signal.none`. */
    what: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [index('gestures_by_lesson').on(table.lesson)],
);
