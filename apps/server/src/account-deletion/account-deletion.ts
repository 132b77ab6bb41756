import type { Id } from '@cuaderno/core';
import fp from 'fastify-plugin';
import type { Tutor } from '../accounts/index.js';
import { dropCopies } from '../database/copies.js';
import { KEPT_TABLES } from '../live/features/kept.js';
import { ProblemError } from '../problems/index.js';

declare module 'fastify' {
  interface FastifyInstance {
    /**
     * Deletes a tutor's account and everything in it, for good. Throws `lesson-open` while a lesson of theirs is open:
     * anyone who is in it would be left standing.
     */
    deleteAccount(tutor: Tutor): Promise<void>;
  }
}

const COURSES = 'SELECT id FROM courses WHERE tutor = ?1';
const LESSONS = `SELECT id FROM lessons WHERE course IN (${COURSES})`;
const BOARDS = `SELECT id FROM boards WHERE course IN (${COURSES})`;
const NUMBERS = `SELECT num FROM boards WHERE course IN (${COURSES})`;
const LINKS = `SELECT id FROM record_links WHERE course IN (${COURSES})`;
const PLANS = `SELECT id FROM plans WHERE course IN (${COURSES})`;
const FOLDERS = 'SELECT id FROM folders WHERE tutor = ?1';

/**
 * Every table that has something of a tutor, and which of it is theirs; what is named by others stands before them.
 * A test looks for tables that aren't among these.
 */
export const TABLES: readonly (readonly [table: string, whose: string])[] = [
  ['link_openings', `link IN (${LINKS})`],
  ['record_links', `course IN (${COURSES})`],
  ['record_words', `lesson IN (${LESSONS})`],
  ['record_notes', `lesson IN (${LESSONS})`],
  ['record_boards', `lesson IN (${LESSONS})`],
  ['records', `lesson IN (${LESSONS})`],
  ['hour_corrections', `lesson IN (${LESSONS})`],
  ['late_lines', `lesson IN (${LESSONS})`],
  ...KEPT_TABLES.map((table) => [table, `lesson IN (${LESSONS})`] as const),
  ['spans', `lesson IN (${LESSONS})`],
  ['lesson_boards', `lesson IN (${LESSONS})`],
  ['people', `lesson IN (${LESSONS})`],
  ['plan_changes', `plan IN (${PLANS})`],
  ['plans', `course IN (${COURSES})`],
  ['guest_links', `course IN (${COURSES})`],
  ['known_devices', `course IN (${COURSES})`],
  ['hand_over_fetches', `hand_over IN (SELECT id FROM hand_overs WHERE course IN (${COURSES}))`],
  ['hand_overs', `course IN (${COURSES})`],
  ['folder_shares', `folder IN (${FOLDERS}) OR course IN (${COURSES}) OR tutor = ?1`],
  ['assets', 'tutor = ?1'],
  ['folders', 'tutor = ?1'],
  ['operations', `board IN (${NUMBERS})`],
  ['board_files', `board IN (${BOARDS})`],
  ['board_reports', `board IN (${BOARDS})`],
  ['board_writers', `board IN (${BOARDS})`],
  ['boards', `course IN (${COURSES})`],
  ['lessons', `course IN (${COURSES})`],
  ['courses', 'tutor = ?1'],
  ['letters', 'tutor = ?1'],
  ['deletions', 'tutor = ?1'],
  ['invitations', '"by" = ?1'],
  ['password_resets', 'tutor = ?1'],
  ['sessions', 'tutor = ?1'],
  ['tutors', 'id = ?1'],
];

/** Files that neither a board nor a shelf names any more. */
const UNNAMED = `hash NOT IN (SELECT hash FROM board_files)
  AND hash NOT IN (SELECT made_of FROM board_files WHERE made_of IS NOT NULL)
  AND hash NOT IN (SELECT file FROM assets)
  AND hash NOT IN (SELECT preview FROM assets WHERE preview IS NOT NULL)`;

export const accountDeletion = fp(
  (app, { folder }: { folder: string }, done) => {
    const ask = async (sql: string, tutor: Id): Promise<string[]> => {
      const [rows] = await app.db.raw([{ sql, params: [tutor] }]);
      return (rows as [string][]).map(([value]) => value);
    };
    app.decorate('deleteAccount', async ({ id }: Tutor) => {
      const open = await ask(`${LESSONS} AND closed_at IS NULL`, id);
      if (open.length > 0) throw new ProblemError('lesson-open');
      const [boards, lessons] = await Promise.all([ask(BOARDS, id), ask(LESSONS, id)]);
      // What is being written down of a record just now would come after its deletion.
      await app.indexing.settled();
      await app.sessions.endAll(id);
      const gone = await app.bus.shut(boards, async () => {
        const results = await app.db.raw([
          ...TABLES.map(([table, whose]) => ({
            sql: `DELETE FROM ${table} WHERE ${whose}`,
            params: [id],
          })),
          { sql: `DELETE FROM files WHERE ${UNNAMED} RETURNING hash`, params: [] },
          { sql: "INSERT INTO record_index (record_index) VALUES ('optimize')", params: [] },
        ]);
        return (results.at(-2) as [string][]).map(([hash]) => hash);
      });
      for (const hash of gone) await app.files.remove(hash);
      for (const lesson of lessons) await app.sharedPages.forget(lesson);
      await dropCopies(folder);
      await app.db.raw([{ sql: 'PRAGMA wal_checkpoint(TRUNCATE)', params: [] }]);
    });
    done();
  },
  {
    name: 'account-deletion',
    dependencies: ['database', 'accounts', 'live', 'records', 'record-links'],
  },
);
