import type { Id } from '@cuaderno/core';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { courses } from '../courses/tables.js';
import { assets } from '../materials/tables.js';

/** Files that a tutor has handed over, to keep: to all students of a course, or to one. */
export const handOvers = sqliteTable(
  'hand_overs',
  {
    id: text().$type<Id>().primaryKey(),
    course: text()
      .$type<Id>()
      .notNull()
      .references(() => courses.id),
    asset: text()
      .$type<Id>()
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    /** SHA-256 of what the student’s browser keeps; `null` where all of the course may have it. */
    device: text(),
    /** What the student was called then; `null` for all. */
    name: text(),
    /** In ms since 1970. */
    at: integer().notNull(),
  },
  (table) => [
    index('hand_overs_by_course').on(table.course),
    index('hand_overs_by_device').on(table.device),
    index('hand_overs_by_asset').on(table.asset),
  ],
);

/** Who has fetched what was handed over. */
export const handOverFetches = sqliteTable(
  'hand_over_fetches',
  {
    handOver: text('hand_over')
      .$type<Id>()
      .notNull()
      .references(() => handOvers.id, { onDelete: 'cascade' }),
    device: text().notNull(),
    /** What the student was called when they fetched it first. */
    name: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [primaryKey({ columns: [table.handOver, table.device] })],
);
