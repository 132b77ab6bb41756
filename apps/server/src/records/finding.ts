import { around, SAID_SOURCES, wantedOf } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { Database } from '../database/index.js';
import type { RecordNotes } from './notes.js';
import type { Records } from './service.js';
import type { Found, FoundRecord } from '@cuaderno/contract/records';

/** Records that are told at once, and places in each. */
const AT_ONCE = 12;
const PLACES = 3;
/** Pages first, then what was said, then what was written of it. */
const ORDER = `instr('${['page', ...SAID_SOURCES, 'summary', 'until'].join(' ')}', source), number, w.id`;

/** What is looked for; all of it must fit. */
export interface RecordQuery {
  /** On a page, in a message or a note: each word, or the beginning of one. */
  readonly words?: string | undefined;
  readonly course?: string | undefined;
  /** Name of a student who was there. */
  readonly student?: string | undefined;
  /** When the lesson was opened, in ms since 1970; `until` is not in it. */
  readonly from?: number | undefined;
  readonly until?: number | undefined;
  /** How many of the latest were told already. */
  readonly skip?: number | undefined;
}

/** A place in a record; without a source it is the record alone. */
type FoundRow = [
  lesson: string,
  source: Found['source'] | null,
  page: string | null,
  number: number | null,
  said: string,
];

/** Finds records of a tutor, the latest first. */
export class Finding {
  constructor(
    private readonly db: Database,
    private readonly records: Records,
    private readonly notes: RecordNotes,
  ) {}

  /** `more` says that there are more than are told. */
  async find(tutor: Id, wish: RecordQuery): Promise<{ found: FoundRecord[]; more: boolean }> {
    const wanted = wantedOf(wish.words ?? '');
    if (wanted.length === 0 && (wish.words ?? '').trim() !== '') return { found: [], more: false };
    const { sql, params } = matching(tutor, wish, wanted);
    const [rows] = await this.db.raw([{ sql, params }]);
    const lessons = [...new Set((rows as FoundRow[]).map(([lesson]) => lesson))];
    const told = lessons.slice(0, AT_ONCE);
    const infos = await this.notes.listed(await this.records.of({ lessons: told }, AT_ONCE));
    return {
      found: infos.map((record) => ({
        record,
        places: (rows as FoundRow[]).flatMap(([lesson, source, page, number, said]) =>
          lesson === record.lesson && source !== null
            ? [{ source, page, number, ...around(said, wanted) }]
            : [],
        ),
      })),
      more: lessons.length > AT_ONCE,
    };
  }

  /** Names of students who were in lessons of this tutor, for choosing one. */
  async students(tutor: Id): Promise<string[]> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT DISTINCT p.name FROM people p JOIN lessons l ON l.id = p.lesson
          JOIN courses c ON c.id = l.course JOIN records r ON r.lesson = l.id
          WHERE c.tutor = ? AND p.role = 'student'
            AND EXISTS (SELECT 1 FROM spans s WHERE s.lesson = p.lesson AND s.person = p.id)
          ORDER BY p.name COLLATE NOCASE LIMIT 500`,
        params: [tutor],
      },
    ]);
    return (rows as [string][]).map(([name]) => name);
  }
}

/** Asks for the records that fit, and the first places in each. */
function matching(
  tutor: Id,
  { course, student, from, until, skip = 0 }: RecordQuery,
  wanted: readonly (readonly string[])[],
): { sql: string; params: unknown[] } {
  const also: string[] = [];
  const params: unknown[] = wanted.length > 0 ? [matchOf(wanted), tutor] : [tutor];
  const and = (condition: string, ...values: unknown[]): void => {
    also.push(`AND ${condition}`);
    params.push(...values);
  };
  if (course !== undefined) and('l.course = ?', course);
  if (from !== undefined) and('l.opened_at >= ?', from);
  if (until !== undefined) and('l.opened_at < ?', until);
  if (student !== undefined)
    and(
      `EXISTS (SELECT 1 FROM people p WHERE p.lesson = l.id AND p.role = 'student' AND p.name = ?
        AND EXISTS (SELECT 1 FROM spans s WHERE s.lesson = p.lesson AND s.person = p.id))`,
      student,
    );
  const told = (fits: string): string => `SELECT l.id AS lesson, l.opened_at FROM records r
    JOIN lessons l ON l.id = r.lesson JOIN courses c ON c.id = l.course
    WHERE c.tutor = ? ${also.join(' ')} ${fits}
    ORDER BY l.opened_at DESC, l.id LIMIT ${AT_ONCE + 1} OFFSET ?`;
  params.push(skip);
  if (wanted.length === 0)
    return { sql: `SELECT lesson, NULL, NULL, NULL, '' FROM (${told('')})`, params };
  return {
    // Words are looked up once. What is said is read of the few rows that are told: that a lesson has such a row
    // is seen from the index of its rows alone (`+` keeps SQLite from going through all that was found instead).
    sql: `WITH hits AS MATERIALIZED (SELECT rowid AS id FROM record_index WHERE record_index MATCH ?),
      told AS MATERIALIZED (${told(`AND EXISTS (SELECT 1 FROM record_words w
        WHERE w.lesson = l.id AND +w.id IN (SELECT id FROM hits))`)}),
      fits AS (SELECT w.id, told.opened_at,
        row_number() OVER (PARTITION BY told.lesson ORDER BY ${ORDER}) AS place
        FROM told CROSS JOIN record_words w ON w.lesson = told.lesson
        WHERE +w.id IN (SELECT id FROM hits))
      SELECT w.lesson, w.source, w.page, w.number, w.said
      FROM fits JOIN record_words w ON w.id = fits.id
      WHERE fits.place <= ${PLACES} ORDER BY fits.opened_at DESC, w.lesson, fits.place`,
    params,
  };
}

/** As SQLite's full-text search has it: tokens that follow each other, the last of which may go on. */
function matchOf(wanted: readonly (readonly string[])[]): string {
  return wanted.map((word) => `"${word.join(' ')}" *`).join(' ');
}
