import { newId } from '@cuaderno/core';
import type { DoorRule, Rules } from '@cuaderno/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { newJoinCode, newLinkToken, readCode } from './codes.js';
import { courses } from './tables.js';

export interface Course {
  readonly id: string;
  readonly tutor: string;
  readonly name: string;
  readonly linkToken: string;
  readonly joinCode: string;
  /** Who comes in without being let in. */
  readonly door: DoorRule;
  /** What students may do when a lesson begins. */
  readonly rules: Rules;
  /** When it was retired, in ms since 1970. */
  readonly retiredAt: number | null;
}

type CourseRow = typeof courses.$inferSelect;

function course(row: CourseRow): Course {
  const { id, tutor, name, linkToken, joinCode, door, rules, retiredAt } = row;
  return { id, tutor, name, linkToken, joinCode, door, rules, retiredAt };
}

export class Courses {
  constructor(private readonly db: Database) {}

  async make(tutor: string, name: string): Promise<Course> {
    const row: CourseRow = {
      id: newId(),
      tutor,
      name,
      linkToken: newLinkToken(),
      joinCode: newJoinCode(),
      createdAt: Date.now(),
      door: 'ask',
      rules: {},
      retiredAt: null,
    };
    await this.db.insert(courses).values(row);
    return course(row);
  }

  async of(tutor: string): Promise<Course[]> {
    const rows = await this.db
      .select()
      .from(courses)
      .where(eq(courses.tutor, tutor))
      .orderBy(asc(courses.createdAt));
    return rows.map(course);
  }

  /** Throws `not-found` where this tutor has no such course. */
  async one(id: string, tutor: string): Promise<Course> {
    const [row] = await this.db
      .select()
      .from(courses)
      .where(and(eq(courses.id, id), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
    return course(row);
  }

  async byId(id: string): Promise<Course | null> {
    const [row] = await this.db.select().from(courses).where(eq(courses.id, id));
    return row ? course(row) : null;
  }

  /** The course of a join link or a join code as someone typed it, or `null`. */
  async byJoin(by: { link: string } | { code: string }): Promise<Course | null> {
    const [row] = await this.db
      .select()
      .from(courses)
      .where(
        'link' in by ? eq(courses.linkToken, by.link) : eq(courses.joinCode, readCode(by.code)),
      );
    return row ? course(row) : null;
  }

  async setDoor(id: string, door: DoorRule): Promise<void> {
    await this.db.update(courses).set({ door }).where(eq(courses.id, id));
  }

  async setRules(id: string, rules: Rules): Promise<void> {
    await this.db.update(courses).set({ rules }).where(eq(courses.id, id));
  }

  /** A link and a code that nobody has yet; the old ones lead nowhere from here on. */
  async renewLink(id: string): Promise<void> {
    await this.db
      .update(courses)
      .set({ linkToken: newLinkToken(), joinCode: newJoinCode() })
      .where(eq(courses.id, id));
  }

  /** The link dies for good; boards and records stay. */
  async retire(id: string): Promise<void> {
    await this.db.update(courses).set({ retiredAt: Date.now() }).where(eq(courses.id, id));
  }

  /** A retired course goes on, with a link of its own: the former one stays dead. */
  async resume(id: string): Promise<void> {
    await this.renewLink(id);
    await this.db.update(courses).set({ retiredAt: null }).where(eq(courses.id, id));
  }
}
