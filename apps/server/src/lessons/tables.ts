import type { DoorState } from '@cuaderno/core';
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
    nth: integer().notNull(),
    role: text({ enum: ['tutor', 'student'] }).notNull(),
    trust: text({ enum: ['look', 'write', 'hands'] }).notNull(),
    arrivedAt: integer('arrived_at').notNull(),
    /** Whether they are in; those of earlier lessons were. */
    door: text().$type<DoorState>().notNull().default('in'),
    /** SHA-256 of what their browser keeps. */
    device: text(),
    guest: text(),
  },
  (table) => [uniqueIndex('people_by_lesson').on(table.lesson, table.id)],
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
