import type { DoorState, Rules } from '@cuaderno/core';
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { courses } from '../courses/tables.js';

export const lessons = sqliteTable(
  'lessons',
  {
    id: text().primaryKey(),
    course: text()
      .notNull()
      .references(() => courses.id),
    board: text().notNull(),
    openedAt: integer('opened_at').notNull(),
    closedAt: integer('closed_at'),
    /** When the server last knew this lesson to be running: where it was killed, spans end here. */
    aliveAt: integer('alive_at').notNull(),
    /** Whether students' windows follow the tutor's. */
    inStep: integer('in_step', { mode: 'boolean' }).notNull().default(false),
    /** What holds for all its students where nothing else is said for one. */
    rules: text({ mode: 'json' }).$type<Rules>().notNull().default({}),
    /** The student who leads, if one does. */
    lead: text(),
    /** When it is to end, in ms since 1970, if that was planned. */
    endsAt: integer('ends_at'),
  },
  (table) => [
    index('lessons_by_course').on(table.course),
    uniqueIndex('one_open_lesson_a_course')
      .on(table.course)
      .where(sql`closed_at is null`),
  ],
);

/** People of a lesson, in order of arrival. */
export const people = sqliteTable(
  'people',
  {
    id: text().notNull(),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    name: text().notNull(),
    nameOrdinal: integer('name_ordinal').notNull(),
    role: text({ enum: ['tutor', 'student'] }).notNull(),
    trust: text({ enum: ['view', 'write', 'hands'] }).notNull(),
    arrivedAt: integer('arrived_at').notNull(),
    /** What is said for them besides their pen. */
    rules: text({ mode: 'json' }).$type<Rules>().notNull().default({}),
    /** Whether they are in; those of earlier lessons were. */
    door: text().$type<DoorState>().notNull().default('in'),
    /** SHA-256 of what their browser keeps. */
    device: text(),
    guest: text(),
    /** Whether they had a pen at any time. */
    hadPen: integer('had_pen', { mode: 'boolean' }).notNull().default(false),
  },
  (table) => [uniqueIndex('people_by_lesson').on(table.lesson, table.id)],
);

/** Who turned to which page, and when. */
export const pageTurns = sqliteTable(
  'page_turns',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    person: text().notNull(),
    page: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [index('page_turns_by_lesson').on(table.lesson)],
);

/** When someone was there; a span without end is still going on. */
export const spans = sqliteTable(
  'spans',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    person: text().notNull(),
    fromAt: integer('from_at').notNull(),
    toAt: integer('to_at'),
  },
  (table) => [index('spans_by_lesson').on(table.lesson)],
);
