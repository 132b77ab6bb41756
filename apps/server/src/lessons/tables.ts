import type { DoorState, Role, Rules } from '@cuaderno/core';
import {
  index,
  integer,
  primaryKey,
  sqliteTable,
  text,
  uniqueIndex,
} from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { courses } from '../courses/tables.js';

export const lessons = sqliteTable(
  'lessons',
  {
    id: text().primaryKey(),
    course: text()
      .notNull()
      .references(() => courses.id),
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

/** The boards that a lesson is on, in the order in which they came. */
export const lessonBoards = sqliteTable(
  'lesson_boards',
  {
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    board: text().notNull(),
    place: integer().notNull(),
    /** Whether the class has it, or had it at the end. */
    shown: integer({ mode: 'boolean' }).notNull().default(true),
  },
  (table) => [
    primaryKey({ columns: [table.lesson, table.board] }),
    index('lesson_boards_by_board').on(table.board),
  ],
);

/** The boards of a closed lesson's record: those that were seen or written on in it, in the order in which they came. */
export const recordBoards = sqliteTable(
  'record_boards',
  {
    lesson: text()
      .notNull()
      .references(() => lessons.id),
    /** From 0, without gaps. */
    place: integer().notNull(),
    board: text().notNull(),
    /** What it was called then. */
    title: text().notNull(),
    /** Place in the board's log up to which the record goes. The log is never rewritten, so neither is this. */
    seq: integer().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.lesson, table.place] }),
    index('record_boards_by_board').on(table.board),
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
    role: text().$type<Role>().notNull(),
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
    board: text().notNull().default(''),
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
