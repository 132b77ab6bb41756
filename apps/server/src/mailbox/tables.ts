import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

/** Letters that would be sent if there were a mail server: this stands in for one. */
export const letters = sqliteTable(
  'letters',
  {
    id: text().primaryKey(),
    /** In whose name it would go out. */
    tutor: text().notNull(),
    /** An e-mail address. */
    to: text().notNull(),
    subject: text().notNull(),
    body: text().notNull(),
    at: integer().notNull(),
  },
  (table) => [index('letters_by_tutor').on(table.tutor, table.at)],
);
