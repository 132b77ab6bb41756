import { newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, asc, eq, gte, inArray, isNotNull, lt } from 'drizzle-orm';
import fp from 'fastify-plugin';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessons } from '../lessons/tables.js';
import { ProblemError } from '../problems/index.js';
import type { Records } from '../records/service.js';
import type { Correction, HourRow } from '@cuaderno/contract/hours';
import { hourCorrections } from './tables.js';

declare module 'fastify' {
  interface FastifyInstance {
    hours: Hours;
  }
}

/** Lessons that are counted at once at most: ten years of a full week. */
const MOST = 20_000;

/** How long lessons really were: written by opening and closing them, corrected with a reason that stays. */
export class Hours {
  constructor(
    private readonly db: Database,
    private readonly records: Records,
  ) {}

  /**
   * Closed lessons that opened between two moments, the latest first.
   * @param course of this one alone
   */
  async of(tutor: string, from: number, to: number, course?: Id): Promise<HourRow[]> {
    const rows = await this.db
      .select({
        lesson: lessons.id,
        course: courses.id,
        courseName: courses.name,
        openedAt: lessons.openedAt,
        closedAt: lessons.closedAt,
      })
      .from(lessons)
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(
        and(
          eq(courses.tutor, tutor),
          isNotNull(lessons.closedAt),
          gte(lessons.openedAt, from),
          lt(lessons.openedAt, to),
          course === undefined ? undefined : eq(courses.id, course),
        ),
      )
      .orderBy(asc(lessons.openedAt))
      .limit(MOST);
    const ids = rows.map(({ lesson }) => lesson);
    if (ids.length === 0) return [];
    const [corrections, found] = await Promise.all([
      this.db
        .select()
        .from(hourCorrections)
        .where(inArray(hourCorrections.lesson, ids))
        .orderBy(asc(hourCorrections.at), asc(hourCorrections.id)),
      this.records.of({ lessons: ids }, ids.length),
    ]);
    const people = new Map(found.map((record) => [record.lesson, record.people] as const));
    return rows.reverse().map((row): HourRow => {
      const own = corrections
        .filter(({ lesson }) => lesson === row.lesson)
        .map(({ minutes, why, at }) => ({ minutes, why, at }));
      const closedAt = row.closedAt!;
      const measured = Math.round((closedAt - row.openedAt) / 60_000);
      return {
        ...row,
        closedAt,
        measured,
        minutes: own.at(-1)?.minutes ?? measured,
        corrections: own,
        students: people.get(row.lesson) ?? [],
      };
    });
  }

  /** Throws `not-found` where this tutor has no such closed lesson. */
  async correct(tutor: string, lesson: string, minutes: number, why: string): Promise<Correction> {
    const [row] = await this.db
      .select({ id: lessons.id })
      .from(lessons)
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(and(eq(lessons.id, lesson), eq(courses.tutor, tutor), isNotNull(lessons.closedAt)));
    if (!row) throw new ProblemError('not-found');
    const correction = { minutes, why, at: Date.now() };
    await this.db.insert(hourCorrections).values({ ...correction, id: newId(), lesson });
    return correction;
  }
}

export const hours = fp(
  (app, _options, done) => {
    app.decorate('hours', new Hours(app.db, app.records));
    done();
  },
  { name: 'hours', dependencies: ['database', 'records'] },
);
