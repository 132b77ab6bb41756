import type { Id } from '@cuaderno/core';
import type { Database } from '../database/index.js';
import { SAID_COUNTS } from '../live/features/kept.js';
import type { Seat, StudentData } from '@cuaderno/contract/student-data';
import { Mentions } from './mentions.js';

/** Counts lines, texts and shapes by who put them on this tutor's boards. */
const INK = `SELECT "by", count(*) FROM operations
  WHERE board IN (SELECT b.num FROM boards b JOIN courses c ON c.id = b.course WHERE c.tutor = ?)
    AND kind IN ('ink.add', 'item.add') AND "by" IN (SELECT value FROM json_each(?)) GROUP BY "by"`;
const SEATS = `SELECT p.id, p.name_ordinal, l.id, c.id, c.name, l.opened_at, l.closed_at IS NULL,
    ${SAID_COUNTS.map(([, sql]) => `(${sql})`).join(', ')}
  FROM people p JOIN lessons l ON l.id = p.lesson JOIN courses c ON c.id = l.course
  WHERE c.tutor = ? AND p.role <> 'tutor' AND p.name = ? ORDER BY l.opened_at DESC, p.name_ordinal`;

type SeatRow = [
  person: Id,
  nameOrdinal: number,
  lesson: Id,
  course: Id,
  courseName: string,
  openedAt: number,
  open: number,
  ...said: number[],
];

/** What there is of students of one name. */
export class StudentsData {
  readonly mentions: Mentions;

  constructor(private readonly db: Database) {
    this.mentions = new Mentions(db);
  }

  /** The lessons to which they came, also those to which they weren't let in; the latest first. */
  async seats(tutor: Id, name: string): Promise<Seat[]> {
    const [rows] = await this.db.raw([{ sql: SEATS, params: [tutor, name] }]);
    const people = (rows as SeatRow[]).map(([person]) => person);
    const [counts] = await this.db.raw([{ sql: INK, params: [tutor, JSON.stringify(people)] }]);
    const ink = new Map(counts as [Id, number][]);
    return (rows as SeatRow[]).map(
      ([person, nameOrdinal, lesson, course, courseName, openedAt, open, ...said]) => ({
        ...{ person, nameOrdinal, lesson, course, courseName, openedAt },
        said: Object.fromEntries(SAID_COUNTS.map(([source], i) => [source, said[i] ?? 0])),
        open: open === 1,
        ink: ink.get(person) ?? 0,
      }),
    );
  }

  async of(tutor: Id, name: string): Promise<StudentData> {
    const seats = await this.seats(tutor, name);
    const courses = [...new Set(seats.map(({ course }) => course))];
    const count = async (sql: string): Promise<number> => {
      const [rows] = await this.db.raw([{ sql, params: [JSON.stringify(courses), name] }]);
      return (rows as [number][])[0]![0];
    };
    const texts = await this.mentions.of(tutor, courses, name);
    const links = await this.mentions.links(courses, name);
    return {
      seats,
      links: links.length,
      browsers: await count(
        `SELECT count(*) FROM known_devices
          WHERE course IN (SELECT value FROM json_each(?1)) AND name = ?2`,
      ),
      named: texts.length,
    };
  }
}
