import { newId } from '@cuaderno/core';
import { and, asc, desc, eq, inArray, isNull, or } from 'drizzle-orm';
import { newLinkToken } from '../courses/codes.js';
import { courses } from '../courses/tables.js';
import { tutors } from '../accounts/tables.js';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import type { Device } from './device.js';
import type { LinkWish, Opening, RecordLink } from '@cuaderno/contract/record-links';
import { linkOpenings, recordLinks } from './tables.js';

type RecordLinkRow = typeof recordLinks.$inferSelect;

/** A link that is open, as anyone who has it meets it. */
export interface OpenLink extends RecordLinkRow {
  readonly courseName: string;
  readonly tutorName: string;
  readonly tutor: string;
}

/** Openings that are listed with a link at most, the latest first. */
const LISTED = 100;
/** Longest that a link may last, in days. */
export const LONGEST = 366;

/** Links to records for people without an account: made, listed with what was done by them, and withdrawn. */
export class RecordLinks {
  constructor(private readonly db: Database) {}

  /**
   * @param course the tutor's, as the caller has made sure; and `lesson` one of its records
   * Throws `link-until` for a last day that is over, or too far away.
   */
  async make(course: string, lesson: string | null, wish: LinkWish): Promise<RecordLink> {
    const now = Date.now();
    if (wish.until <= now || wish.until > now + LONGEST * 86_400_000)
      throw new ProblemError('link-until');
    const { forWhom, email, may, names, student, until } = wish;
    const row: RecordLinkRow = {
      ...{ id: newId(), token: newLinkToken(), course, lesson },
      ...{ forWhom, email, may, names, student: names === 'own' ? student : null },
      ...{ untilAt: until, madeAt: now, withdrawnAt: null },
    };
    await this.db.insert(recordLinks).values(row);
    return shapeOf(row, []);
  }

  /** Those of a course, the newest first: with a `lesson`, those by which its record is seen. */
  async of(course: string, lesson: string | null): Promise<RecordLink[]> {
    const rows = await this.db
      .select()
      .from(recordLinks)
      .where(
        and(
          eq(recordLinks.course, course),
          lesson ? or(eq(recordLinks.lesson, lesson), isNull(recordLinks.lesson)) : undefined,
        ),
      )
      .orderBy(desc(recordLinks.madeAt));
    const ids = rows.map(({ id }) => id);
    const openings = ids.length
      ? await this.db
          .select()
          .from(linkOpenings)
          .where(inArray(linkOpenings.link, ids))
          .orderBy(asc(linkOpenings.at), asc(linkOpenings.id))
      : [];
    return rows.map((row) =>
      shapeOf(
        row,
        openings
          .filter(({ link }) => link === row.id)
          .map(({ at, what, lesson: about, device }) => ({ at, what, lesson: about, device })),
      ),
    );
  }

  /** It opens nothing from here on. Throws `not-found` where this tutor has no such link. */
  async withdraw(id: string, tutor: string): Promise<void> {
    const [row] = await this.db
      .select({ id: recordLinks.id })
      .from(recordLinks)
      .innerJoin(courses, eq(courses.id, recordLinks.course))
      .where(and(eq(recordLinks.id, id), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
    await this.db
      .update(recordLinks)
      .set({ withdrawnAt: Date.now() })
      .where(and(eq(recordLinks.id, id), isNull(recordLinks.withdrawnAt)));
  }

  /** Throws `no-such-link`, `link-withdrawn` or `link-over`. Looked up with every request, so that it holds at once. */
  async open(token: string): Promise<OpenLink> {
    const [row] = await this.db
      .select({
        link: recordLinks,
        courseName: courses.name,
        tutor: courses.tutor,
        tutorName: tutors.name,
      })
      .from(recordLinks)
      .innerJoin(courses, eq(courses.id, recordLinks.course))
      .innerJoin(tutors, eq(tutors.id, courses.tutor))
      .where(eq(recordLinks.token, token));
    if (!row) throw new ProblemError('no-such-link');
    const { link, courseName, tutor, tutorName } = row;
    if (link.withdrawnAt !== null) throw new ProblemError('link-withdrawn');
    if (link.untilAt < Date.now()) throw new ProblemError('link-over');
    return { ...link, courseName, tutor, tutorName };
  }

  async note(
    link: string,
    what: Opening['what'],
    lesson: string | null,
    device: Device,
  ): Promise<void> {
    await this.db.insert(linkOpenings).values({ link, what, lesson, device, at: Date.now() });
  }
}

function shapeOf(row: RecordLinkRow, openings: readonly Opening[]): RecordLink {
  const { untilAt, withdrawnAt, ...rest } = row;
  const state = withdrawnAt !== null ? 'withdrawn' : untilAt < Date.now() ? 'over' : 'open';
  return {
    ...rest,
    until: untilAt,
    state,
    count: openings.filter(({ what }) => what === 'opened').length,
    openings: openings.slice(-LISTED).reverse(),
  };
}
