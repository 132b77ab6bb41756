import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { courses } from '../courses/tables.js';

/** Links by which a student or parent sees one record, or those of a course. */
export const recordLinks = sqliteTable(
  'record_links',
  {
    id: text().primaryKey(),
    token: text().notNull().unique(),
    course: text()
      .notNull()
      .references(() => courses.id),
    /** The one record; `null` for all of the course, those to come included. */
    lesson: text(),
    /** Whom it was made for, as the tutor calls them. */
    forWhom: text('for_whom').notNull(),
    /** Where it was sent; `null` where it was only copied. */
    email: text(),
    may: text({ enum: ['view', 'download'] }).notNull(),
    /** Whether others' names are shown; else that of `student` alone. */
    names: text({ enum: ['all', 'own'] }).notNull(),
    student: text(),
    /** The last moment at which it opens, in ms since 1970. */
    untilAt: integer('until_at').notNull(),
    madeAt: integer('made_at').notNull(),
    withdrawnAt: integer('withdrawn_at'),
  },
  (table) => [index('record_links_by_course').on(table.course)],
);

/** What was done with a link, and when. */
export const linkOpenings = sqliteTable(
  'link_openings',
  {
    id: integer().primaryKey({ autoIncrement: true }),
    link: text()
      .notNull()
      .references(() => recordLinks.id),
    at: integer().notNull(),
    what: text({ enum: ['opened', 'record', 'downloaded'] }).notNull(),
    /** The record it was about. */
    lesson: text(),
    device: text({ enum: ['phone', 'tablet', 'computer'] }).notNull(),
  },
  (table) => [index('link_openings_by_link').on(table.link)],
);
