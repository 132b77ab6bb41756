import type { Id } from '@cuaderno/core';
import { blob, index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { lessons } from '../lessons/tables.js';

/** What became of a late line: it waits for the tutor, lies on the page or in the record, or was left. */
export type LateState = 'waiting' | 'page' | 'record' | 'left';

/** What students wrote while their line was away, and could not be taken when they came back. */
export const lateLines = sqliteTable(
  'late_lines',
  {
    lesson: text()
      .$type<Id>()
      .notNull()
      .references(() => lessons.id),
    /** Of the operation, and of the item that it makes. */
    id: text().$type<Id>().notNull(),
    person: text().$type<Id>().notNull(),
    /** The order in which it was written, from 1. */
    number: integer().notNull(),
    board: text().$type<Id>().notNull().default(''),
    page: text().$type<Id>().notNull(),
    /** When it came, by the server’s clock, in ms since 1970: when it was written is not known. */
    at: integer().notNull(),
    /** In which version of our words the body is: see `upgradeStored`. */
    version: integer().notNull().default(1),
    /** The operation, packed as on the wire. */
    body: blob({ mode: 'buffer' }).notNull(),
    state: text().$type<LateState>().notNull().default('waiting'),
    /** Whether the student has been told what became of it. */
    told: integer({ mode: 'boolean' }).notNull().default(false),
  },
  (table) => [
    primaryKey({ columns: [table.lesson, table.id] }),
    index('late_lines_by_person').on(table.person),
  ],
);
