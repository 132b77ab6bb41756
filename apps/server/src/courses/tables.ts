import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
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
    /** When it meets every week, if it does: 1 is Monday. */
    weekday: integer(),
    /** `HH:MM` in `zone` */
    startsAt: text('starts_at'),
    minutes: integer(),
    /** IANA time zone */
    zone: text(),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('courses_by_tutor').on(table.tutor)],
);
