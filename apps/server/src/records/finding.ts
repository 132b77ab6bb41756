import { around, wantedOf } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { Database } from '../database/index.js';
import type { Records } from './service.js';
import type { Found, RecordInfo } from './shapes.js';

/** Records that are told at most, and places in each. */
const MOST = 100;
const PLACES = 5;
/** Pages first, then what was said, then what was written of it. */
const ORDER = "instr('page chat summary until', w.source), w.number, w.id";

/** What is looked for; all of it must fit. */
export interface Wish {
  /** On a page, in a message or a note: each word, or the beginning of one. */
  readonly words?: string | undefined;
  readonly course?: string | undefined;
  /** Name of a student who was there. */
  readonly student?: string | undefined;
  /** When the lesson was opened, in ms since 1970; `until` is not in it. */
  readonly from?: number | undefined;
  readonly until?: number | undefined;
}

export interface FoundRecord {
  readonly record: RecordInfo;
  readonly places: Found[];
}

type Row = [
  lesson: string,
  source: Found['source'],
  page: string | null,
  number: number | null,
  said: string,
];

/** Finds records of a tutor, the latest first. */
export class Finding {
  constructor(
    private readonly db: Database,
    private readonly records: Records,
  ) {}

  /** `more` says that there are more than are told. */
  async find(tutor: Id, wish: Wish): Promise<{ found: FoundRecord[]; more: boolean }> {
    const wanted = wantedOf(wish.words ?? '');
    if (wanted.length === 0 && (wish.words ?? '').trim() !== '') return { found: [], more: false };
    const [sql, params] = this.matching(tutor, wish, wanted);
    const [rows] = await this.db.raw([{ sql, params }]);
    const lessons = (rows as [string][]).map(([lesson]) => lesson);
    const told = lessons.slice(0, MOST);
    const infos = await this.records.of({ lessons: told }, MOST);
    const places = wanted.length > 0 ? await this.places(told, wanted) : new Map<Id, Found[]>();
    return {
      found: infos.map((record) => ({ record, places: places.get(record.lesson) ?? [] })),
      more: lessons.length > MOST,
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

  private matching(
    tutor: Id,
    { course, student, from, until }: Wish,
    wanted: readonly (readonly string[])[],
  ): [sql: string, params: unknown[]] {
    const also: string[] = [];
    const params: unknown[] = [tutor];
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
    if (wanted.length > 0)
      and(
        `l.id IN (SELECT w.lesson FROM record_index JOIN record_words w ON w.id = record_index.rowid
          WHERE record_index MATCH ?)`,
        matchOf(wanted),
      );
    return [
      `SELECT l.id FROM records r JOIN lessons l ON l.id = r.lesson JOIN courses c ON c.id = l.course
       WHERE c.tutor = ? ${also.join(' ')} ORDER BY l.opened_at DESC LIMIT ${MOST + 1}`,
      params,
    ];
  }

  private async places(
    lessons: readonly Id[],
    wanted: readonly (readonly string[])[],
  ): Promise<Map<Id, Found[]>> {
    const found = new Map<Id, Found[]>();
    if (lessons.length === 0) return found;
    const [rows] = await this.db.raw([
      {
        sql: `SELECT lesson, source, page, number, said FROM (
          SELECT w.*, row_number() OVER (PARTITION BY w.lesson ORDER BY ${ORDER}) AS nth
          FROM record_index JOIN record_words w ON w.id = record_index.rowid
          WHERE record_index MATCH ? AND w.lesson IN (${lessons.map(() => '?').join(',')}))
          WHERE nth <= ${PLACES} ORDER BY lesson, nth`,
        params: [matchOf(wanted), ...lessons],
      },
    ]);
    for (const [lesson, source, page, number, said] of rows as Row[])
      found.set(lesson, [
        ...(found.get(lesson) ?? []),
        { source, page, number, ...around(said, wanted) },
      ]);
    return found;
  }
}

/** As SQLite's full-text search has it: tokens that follow each other, the last of which may go on. */
function matchOf(wanted: readonly (readonly string[])[]): string {
  return wanted.map((word) => `"${word.join(' ')}" *`).join(' ');
}
