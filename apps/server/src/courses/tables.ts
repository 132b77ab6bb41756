import type { DoorRule, GivenRole, Rules } from '@cuaderno/core';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { tutors } from '../accounts/tables.js';

export const courses = sqliteTable(
  'courses',
  {
    id: text().primaryKey(),
    tutor: text()
      .notNull()
      .references(() => tutors.id),
    name: text().notNull(),
    /** In the join link: long, so that nobody finds it by chance. */
    linkToken: text('link_token').notNull().unique(),
    /** To read out loud: short, without letters that look or sound alike. */
    joinCode: text('join_code').notNull().unique(),
    createdAt: integer('created_at').notNull(),
    /** Who comes in without being let in. */
    door: text().$type<DoorRule>().notNull().default('ask'),
    /** What students may do when a lesson begins. */
    rules: text({ mode: 'json' }).$type<Rules>().notNull().default({}),
    /** When it was retired: its link is dead for good. */
    retiredAt: integer('retired_at'),
  },
  (table) => [index('courses_by_tutor').on(table.tutor)],
);

/** Browsers that were let into a course, so that they can be known again. */
export const knownDevices = sqliteTable(
  'known_devices',
  {
    course: text()
      .notNull()
      .references(() => courses.id),
    /** SHA-256 of what the browser keeps. */
    device: text().notNull(),
    /** The name it was let in under, last. */
    name: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.course, table.device] })],
);

/** Links for one guest each. */
export const guestLinks = sqliteTable(
  'guest_links',
  {
    id: text().primaryKey(),
    course: text()
      .notNull()
      .references(() => courses.id),
    token: text().notNull().unique(),
    /** Whom the tutor made it for. */
    guest: text().notNull(),
    /** What they are in the lesson that they come to. */
    role: text().$type<GivenRole>().notNull().default('student'),
    madeAt: integer('made_at').notNull(),
    /** SHA-256 of the first browser that came by it: it lets in no other. */
    device: text(),
    endedAt: integer('ended_at'),
  },
  (table) => [index('guest_links_by_course').on(table.course)],
);
