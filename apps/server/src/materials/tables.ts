import { index, integer, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { tutors } from '../accounts/tables.js';
import { courses } from '../courses/tables.js';
import { files } from '../files/tables.js';

export const folders = sqliteTable(
  'folders',
  {
    id: text().primaryKey(),
    tutor: text()
      .notNull()
      .references(() => tutors.id),
    /** The folder that it lies in; `null` at the top. */
    parent: text(),
    name: text().notNull(),
    /** Where what is brought to this course lands. */
    course: text().references(() => courses.id),
    /** When it was put into the bin, with all that is in it. */
    removedAt: integer('removed_at'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('folders_by_tutor').on(table.tutor)],
);

export const assets = sqliteTable(
  'assets',
  {
    id: text().primaryKey(),
    tutor: text()
      .notNull()
      .references(() => tutors.id),
    /** `null` at the top. */
    folder: text(),
    name: text().notNull(),
    kind: text({ enum: ['pdf', 'slides', 'board', 'picture', 'sound', 'film'] }).notNull(),
    file: text()
      .notNull()
      .references(() => files.hash),
    /** Of a PDF, or of what slides look like. */
    pages: integer(),
    /** In pixels. */
    width: real().notNull(),
    height: real().notNull(),
    /** In seconds. */
    length: real().notNull(),
    /** A PDF of what slides look like, or the still of a film. */
    preview: text().references(() => files.hash),
    removedAt: integer('removed_at'),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [index('assets_by_tutor').on(table.tutor), index('assets_by_file').on(table.file)],
);

/** Whom a folder is shared with: another tutor, who may use it, or the students of a course, who look. */
export const folderShares = sqliteTable(
  'folder_shares',
  {
    id: text().primaryKey(),
    folder: text()
      .notNull()
      .references(() => folders.id),
    tutor: text().references(() => tutors.id),
    course: text().references(() => courses.id),
    createdAt: integer('created_at').notNull(),
  },
  (table) => [
    uniqueIndex('folder_shares_once').on(table.folder, table.tutor, table.course),
    index('folder_shares_by_tutor').on(table.tutor),
    index('folder_shares_by_course').on(table.course),
  ],
);
