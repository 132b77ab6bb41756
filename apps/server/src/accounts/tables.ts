import type { ShortcutSettings } from '@cuaderno/contract/shortcuts';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';

export const tutors = sqliteTable('tutors', {
  id: text().primaryKey(),
  /** In lower case, composed (NFC): as it is compared. */
  email: text().notNull().unique(),
  name: text().notNull(),
  passwordHash: text('password_hash').notNull(),
  /** `null` where nothing was changed. */
  shortcuts: text({ mode: 'json' }).$type<ShortcutSettings>(),
  /** IANA time zone by whose clock times are said; `null` for that of each machine. */
  zone: text(),
  createdAt: integer('created_at').notNull(),
});

export const sessions = sqliteTable(
  'sessions',
  {
    /** SHA-256 of the cookie's token: who reads the database can't sign in with it. */
    tokenHash: text('token_hash').primaryKey(),
    tutor: text()
      .notNull()
      .references(() => tutors.id, { onDelete: 'cascade' }),
    expiresAt: integer('expires_at').notNull(),
  },
  (table) => [index('sessions_by_tutor').on(table.tutor)],
);

/** A tutor's word to another to come in; good once. */
export const invitations = sqliteTable('invitations', {
  /** SHA-256 of the link's token. */
  tokenHash: text('token_hash').primaryKey(),
  by: text()
    .notNull()
    .references(() => tutors.id),
  expiresAt: integer('expires_at').notNull(),
});

/** A word by which a tutor who forgot their password sets it anew; good once. */
export const passwordResets = sqliteTable('password_resets', {
  /** SHA-256 of the link's token. */
  tokenHash: text('token_hash').primaryKey(),
  tutor: text()
    .notNull()
    .references(() => tutors.id, { onDelete: 'cascade' }),
  expiresAt: integer('expires_at').notNull(),
});
