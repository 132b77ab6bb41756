import { isNamedIn, renamedIn } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import type { Database, Query } from '../database/index.js';
import { KEPT_MENTIONS } from '../live/features/kept.js';

/** A text in which somebody is named. */
export interface Mention {
  readonly place: number;
  /** Of its row. */
  readonly id: string | number;
  readonly text: string;
}

export interface MentionedLink {
  readonly id: string;
  readonly token: string;
}

const LESSONS = `IN (SELECT id FROM lessons WHERE course IN (SELECT value FROM json_each(?1)))`;
const COURSES = `IN (SELECT value FROM json_each(?1))`;

/** Every column in which a tutor may have named a student, and what of it belongs to these courses. */
const PLACES: readonly { table: string; column: string; where: string }[] = [
  { table: 'courses', column: 'name', where: `id ${COURSES}` },
  { table: 'folders', column: 'name', where: `course ${COURSES}` },
  ...KEPT_MENTIONS.map((place) => ({ ...place, where: `lesson ${LESSONS}` })),
  { table: 'record_notes', column: 'text', where: `lesson ${LESSONS}` },
  { table: 'hour_corrections', column: 'why', where: `lesson ${LESSONS}` },
  { table: 'plans', column: 'topic', where: `course ${COURSES}` },
  {
    table: 'plan_changes',
    column: 'why',
    where: `plan IN (SELECT id FROM plans WHERE course ${COURSES})`,
  },
];
const LETTERS = ['subject', 'body'];

/** Where a tutor wrote a student's name, as far as another can stand there without changing what is said. */
export class Mentions {
  constructor(private readonly db: Database) {}

  /** @param tutor whose letters are looked at as well; `null` for none */
  async of(tutor: Id | null, courses: readonly Id[], name: string): Promise<Mention[]> {
    const list = JSON.stringify(courses);
    const found = await this.db.raw([
      ...PLACES.map(({ table, column, where }) => ({
        sql: `SELECT rowid, ${column} FROM ${table} WHERE ${where} AND instr(${column}, ?2) > 0`,
        params: [list, name],
      })),
      ...LETTERS.map((column) => ({
        sql: `SELECT id, ${column} FROM letters WHERE tutor IS ?1 AND instr(${column}, ?2) > 0`,
        params: [tutor, name],
      })),
    ]);
    return found.flatMap((rows, place) =>
      (rows as [string | number, string][])
        .filter(([, text]) => isNamedIn(text, name))
        .map(([id, text]) => ({ place, id, text })),
    );
  }

  /** Lessons in whose records they are, as something that was said there. */
  async lessonsOf(mentions: readonly Mention[]): Promise<Id[]> {
    const found = await this.db.raw(
      KEPT_MENTIONS.map(({ table }) => ({
        sql: `SELECT DISTINCT r.lesson FROM ${table} t JOIN records r ON r.lesson = t.lesson
          WHERE t.rowid IN (SELECT value FROM json_each(?))`,
        params: [
          JSON.stringify(
            mentions.filter(({ place }) => PLACES[place]?.table === table).map(({ id }) => id),
          ),
        ],
      })),
    );
    return [...new Set(found.flatMap((rows) => (rows as [Id][]).map(([lesson]) => lesson)))];
  }

  /** What puts another name there. */
  renaming(mentions: readonly Mention[], name: string, alias: string): Query[] {
    return mentions.map(({ place, id, text }) => {
      const { table, column } = PLACES[place] ?? {
        table: 'letters',
        column: LETTERS[place - PLACES.length]!,
      };
      const key = PLACES[place] ? 'rowid' : 'id';
      return {
        sql: `UPDATE ${table} SET ${column} = ? WHERE ${key} = ?`,
        params: [renamedIn(text, name, alias), id],
      };
    });
  }

  /** Links to records of these courses that were made for somebody, or name them. */
  async links(courses: readonly Id[], name: string): Promise<MentionedLink[]> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT id, token, student, for_whom FROM record_links WHERE course ${COURSES}`,
        params: [JSON.stringify(courses)],
      },
    ]);
    return (rows as [string, string, string | null, string][])
      .filter(([, , student, whom]) => student === name || isNamedIn(whom, name))
      .map(([id, token]) => ({ id, token }));
  }
}
