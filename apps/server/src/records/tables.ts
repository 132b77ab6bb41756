import type { Found } from '@cuaderno/contract/records';
import type { LessonStatistics } from '@cuaderno/core/replay';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { lessons } from '../lessons/tables.js';

/**
 * What a closed lesson leaves. Where it ends is written as the lesson closes and never changed; what can be read
 * off its log is written down afterwards, by a worker.
 */
export const records = sqliteTable('records', {
  lesson: text()
    .primaryKey()
    .references(() => lessons.id),
  sealedAt: integer('sealed_at').notNull(),
  title: text().notNull(),
  pageCount: integer('page_count').notNull(),
  /** When all of it was written down, in ms since 1970; `null` while that is still to be done. */
  wholeAt: integer('whole_at'),
  statistics: text({ mode: 'json' }).$type<LessonStatistics>(),
});

/**
 * What the tutor wrote of a lesson, each version as it was written: it is amended by writing another that says
 * which it follows, and never changed. Two can't follow the same one.
 */
export const recordNotes = sqliteTable(
  'record_notes',
  {
    id: text().primaryKey(),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    kind: text({ enum: ['summary', 'until'] }).notNull(),
    text: text().notNull(),
    by: text().notNull(),
    at: integer().notNull(),
    /** The version that it amends; empty for the first. */
    follows: text().notNull().default(''),
  },
  (table) => [
    index('record_notes_by_lesson').on(table.lesson),
    uniqueIndex('one_note_follows_another').on(table.lesson, table.kind, table.follows),
  ],
);

/**
 * Words by which records are found: of each page, message and note. `record_index` is SQLite's full-text search
 * over them and follows by triggers; see the migration that made it.
 */
export const recordWords = sqliteTable(
  'record_words',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    source: text().$type<Found['source']>().notNull(),
    page: text(),
    /** Of the page, from 1. */
    number: integer(),
    /** As it was written. */
    said: text().notNull(),
    /** As it is looked up: see `tokensOf`. */
    tokens: text().notNull(),
  },
  (table) => [index('record_words_by_lesson').on(table.lesson)],
);
