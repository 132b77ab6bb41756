import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { courses } from '../courses/tables.js';

/** Lessons that are planned: one, or a series; see `Plan` in the core. */
export const plans = sqliteTable(
  'plans',
  {
    id: text().primaryKey(),
    course: text()
      .notNull()
      .references(() => courses.id),
    topic: text().notNull().default(''),
    /** `2026-11-24T16:30`, by the clock on the wall in `zone` */
    start: text().notNull(),
    zone: text().notNull(),
    minutes: integer().notNull(),
    /** Kept free after it, in minutes. */
    buffer: integer().notNull(),
    /** RFC 5545; `null` for a single lesson. */
    rule: text(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('plans_by_course').on(table.course)],
);

/** Single dates of a series that are at another time, or cancelled. */
export const planChanges = sqliteTable(
  'plan_changes',
  {
    plan: text()
      .notNull()
      .references(() => plans.id, { onDelete: 'cascade' }),
    was: text().notNull(),
    /** When it is instead; `null` where it is cancelled. */
    now: text(),
    why: text().notNull().default(''),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.plan, table.was] })],
);
