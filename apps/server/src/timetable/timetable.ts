import { newId } from '@cuaderno/core';
import {
  clashesAmong,
  endedBefore,
  moveSeries,
  nextOf,
  occurrencesOf,
  timesOf,
  wallTimeOf,
  weekly,
} from '@cuaderno/core/timetable';
import type { Occurrence, Plan, WallTime } from '@cuaderno/core/timetable';
import { and, asc, eq, gt, gte, inArray, isNull, lt } from 'drizzle-orm';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessons } from '../lessons/tables.js';
import { ProblemError } from '../problems/index.js';
import type { ClashShape, HeldLesson, Planned, PlanWish } from '@cuaderno/contract/timetable';
import { planChanges, plans } from './tables.js';

/** How long before its time a lesson is opened at the earliest to be that one, in ms. */
const EARLY = 3_600_000;
/** Series and single lessons that a tutor has at most: of forty students, five each. */
const MOST_SERIES = 200;
const MOST_SINGLE = 1_500;
/** Lessons that are shown at once at most. */
const MOST_SHOWN = 3_000;
/** Longest stretch of the timetable that is asked for at once, in ms. */
const LONGEST = 400 * 86_400_000;

/** When lessons are: planned once or in series, moved and cancelled date by date. */
export class Timetable {
  constructor(private readonly db: Database) {}

  /** Plans of a course, or of all that a tutor goes on giving; the first made first. */
  async plans(whose: { course: string } | { tutor: string }): Promise<Plan[]> {
    const rows = await this.db
      .select({ plan: plans })
      .from(plans)
      .innerJoin(courses, eq(courses.id, plans.course))
      .where(
        'course' in whose
          ? eq(plans.course, whose.course)
          : and(eq(courses.tutor, whose.tutor), isNull(courses.retiredAt)),
      )
      .orderBy(asc(plans.createdAt));
    const ids = rows.map(({ plan }) => plan.id);
    const changes = ids.length
      ? await this.db.select().from(planChanges).where(inArray(planChanges.plan, ids))
      : [];
    const changesOf = new Map<string, (typeof changes)[number][]>();
    for (const change of changes)
      changesOf.set(change.plan, [...(changesOf.get(change.plan) ?? []), change]);
    return rows.map(({ plan }) => ({
      ...{
        id: plan.id,
        course: plan.course,
        topic: plan.topic,
        start: plan.start,
        zone: plan.zone,
      },
      ...{ minutes: plan.minutes, buffer: plan.buffer, rule: plan.rule },
      changes: (changesOf.get(plan.id) ?? []).map(({ was, now, why }) => ({ was, now, why })),
    }));
  }

  async make(course: string, wish: PlanWish): Promise<Plan> {
    const { topic, start, zone, minutes, buffer, until } = wish;
    const rule = wish.weekly ? weekly(until) : null;
    if (rule && until && until < start.slice(0, 10)) throw new ProblemError('series-over');
    await this.makeRoom(course, [{ rule }]);
    return this.insert(course, { topic, start, zone, minutes, buffer, rule, changes: [] });
  }

  /** Throws `timetable-full` where so many more are too many for the tutor of a course. */
  async makeRoom(course: string, more: readonly { readonly rule: string | null }[]): Promise<void> {
    const [rows] = await this.db.raw([
      {
        sql: `SELECT count(rule), count(*) - count(rule) FROM plans
          WHERE course IN (SELECT id FROM courses WHERE retired_at IS NULL
            AND tutor = (SELECT tutor FROM courses WHERE id = ?))`,
        params: [course],
      },
    ]);
    const [series, single] = rows![0] as [number, number];
    const newSeries = more.filter(({ rule }) => rule !== null).length;
    if (series + newSeries > MOST_SERIES || single + more.length - newSeries > MOST_SINGLE)
      throw new ProblemError('timetable-full', {
        detail: `A timetable holds ${MOST_SERIES} series and ${MOST_SINGLE} single lessons; there are ${series} and ${single}. End series and remove lessons that you don’t need any more, then plan this.`,
      });
  }

  /** A plan as it is, with its changes: one that was brought from a calendar. */
  async insert(course: string, plan: Omit<Plan, 'id' | 'course'>): Promise<Plan> {
    const { changes, ...row } = plan;
    const id = newId();
    const at = Date.now();
    await this.db.batch([
      this.db.insert(plans).values({ ...row, id, course, createdAt: at }),
      ...changes.map((change) =>
        this.db
          .insert(planChanges)
          .values({ ...change, plan: id, at })
          .onConflictDoNothing(),
      ),
    ]);
    return { ...plan, id, course };
  }

  /**
   * Moves one date, or cancels it. Throws `not-planned` where the plan has no such date.
   * @param now when it is instead; `null` where it is cancelled
   */
  async change(plan: Plan, was: WallTime, now: WallTime | null, why: string): Promise<void> {
    if (!isDateOf(plan, was)) throw new ProblemError('not-planned');
    // Moved back, it is as it was planned.
    if (now === was) return this.restore(plan, was);
    const change = { now, why, at: Date.now() };
    await this.db
      .insert(planChanges)
      .values({ plan: plan.id, was, ...change })
      .onConflictDoUpdate({ target: [planChanges.plan, planChanges.was], set: change });
  }

  /**
   * Moves one date and all after it; those before stay. Returns the plan that has them from then on. Throws `not-planned`,
   * and `series-has-days` for a rule that says itself on which days it comes.
   */
  async moveSeries(plan: Plan, was: WallTime, now: WallTime): Promise<string> {
    if (!isDateOf(plan, was)) throw new ProblemError('not-planned');
    const moved = moveSeries(plan, was, now);
    if (!moved) throw new ProblemError('series-has-days');
    const { start, rule, changes } = moved.after;
    const at = Date.now();
    const [id, isNew] = moved.before === null ? [plan.id, false] : [newId(), true];
    if (isNew) await this.makeRoom(plan.course, [{ rule }]);
    const { course, topic, zone, minutes, buffer } = plan;
    await this.db.batch([
      isNew
        ? this.db
            .insert(plans)
            .values({ id, course, topic, zone, minutes, buffer, start, rule, createdAt: at })
        : this.db.update(plans).set({ start, rule }).where(eq(plans.id, id)),
      this.db
        .delete(planChanges)
        .where(and(eq(planChanges.plan, plan.id), gte(planChanges.was, was))),
      ...changes.map((change) => this.db.insert(planChanges).values({ ...change, plan: id, at })),
      ...(isNew
        ? [this.db.update(plans).set({ rule: moved.before }).where(eq(plans.id, plan.id))]
        : []),
    ]);
    return id;
  }

  /** A date is as it was planned. */
  async restore(plan: Plan, was: WallTime): Promise<void> {
    await this.db
      .delete(planChanges)
      .where(and(eq(planChanges.plan, plan.id), eq(planChanges.was, was)));
  }

  /** The series ends before one of its dates; with the first, all of it goes. */
  async end(plan: Plan, was: WallTime): Promise<void> {
    if (!isDateOf(plan, was)) throw new ProblemError('not-planned');
    if (plan.rule === null || was <= plan.start) {
      await this.db.delete(plans).where(eq(plans.id, plan.id));
      return;
    }
    await this.db
      .update(plans)
      .set({ rule: endedBefore(plan.rule, was) })
      .where(eq(plans.id, plan.id));
  }

  /** Throws `not-found` where this tutor has no such plan. */
  async one(id: string, tutor: string): Promise<Plan> {
    const found = (await this.plans({ tutor })).find((plan) => plan.id === id);
    if (!found) throw new ProblemError('not-found');
    return found;
  }

  /** All of a tutor's lessons between two moments, and which of them get in each other's way. */
  async between(
    tutor: string,
    from: number,
    to: number,
  ): Promise<{ lessons: Planned[]; clashes: ClashShape[]; held: HeldLesson[] }> {
    if (to - from > LONGEST || to < from) throw new ProblemError('bad-request');
    const names = new Map(
      (
        await this.db
          .select({ id: courses.id, name: courses.name })
          .from(courses)
          .where(eq(courses.tutor, tutor))
      ).map(({ id, name }) => [id, name] as const),
    );
    const all: Occurrence[] = [];
    for (const plan of await this.plans({ tutor })) {
      all.push(...occurrencesOf(plan, from, to));
      if (all.length > MOST_SHOWN) throw new ProblemError('timetable-crowded');
    }
    const held = await this.held(names, from, to);
    return {
      held,
      lessons: all.sort((a, b) => a.at - b.at).map((one) => plannedOf(one, names, held)),
      clashes: clashesAmong(all).map(({ first, second, how }) => ({
        first: { plan: first.plan.id, was: first.was },
        second: { plan: second.plan.id, was: second.was },
        how,
      })),
    };
  }

  /** Lessons of these courses that took place between two moments, in their order. */
  private async held(
    names: ReadonlyMap<string, string>,
    from: number,
    to: number,
  ): Promise<HeldLesson[]> {
    const rows = await this.db
      .select()
      .from(lessons)
      .where(
        and(
          inArray(lessons.course, [...names.keys()]),
          gt(lessons.closedAt, from),
          lt(lessons.openedAt, to),
        ),
      )
      .orderBy(asc(lessons.openedAt))
      .limit(MOST_SHOWN);
    return rows.map(({ id, course, openedAt, closedAt }) => ({
      ...{ lesson: id, course, courseName: names.get(course) ?? '' },
      ...{ at: openedAt, until: closedAt! },
    }));
  }

  /** The next lesson of each of some courses, or the one that is going on. */
  async next(tutor: string, now: number): Promise<ReadonlyMap<string, Occurrence>> {
    const byCourse = new Map<string, Plan[]>();
    for (const plan of await this.plans({ tutor }))
      byCourse.set(plan.course, [...(byCourse.get(plan.course) ?? []), plan]);
    const next = new Map<string, Occurrence>();
    for (const [course, list] of byCourse) {
      const found = await this.nextAmong(list, course, now);
      if (found) next.set(course, found);
    }
    return next;
  }

  async nextOfCourse(course: string, now: number): Promise<Occurrence | null> {
    return this.nextAmong(await this.plans({ course }), course, now);
  }

  /** The lesson that comes next, or is going on; one that took place already, and was closed early, is neither. */
  private async nextAmong(
    list: readonly Plan[],
    course: string,
    now: number,
  ): Promise<Occurrence | null> {
    const found = nextOf(list, now);
    if (!found || found.at > now || !(await this.tookPlace(found, course))) return found;
    return nextOf(list, found.until);
  }

  /** Whether the course had a lesson, closed since, for half of the time that was planned. */
  private async tookPlace({ at, until }: Occurrence, course: string): Promise<boolean> {
    const closed = await this.db
      .select({ from: lessons.openedAt, to: lessons.closedAt })
      .from(lessons)
      .where(
        and(eq(lessons.course, course), gt(lessons.closedAt, at), lt(lessons.openedAt, until)),
      );
    const taught = closed.reduce(
      (sum, { from, to }) => sum + Math.min(to!, until) - Math.max(from, at),
      0,
    );
    return taught * 2 >= until - at;
  }

  /** When a lesson that is opened now is to end, in ms since 1970; `null` for one out of its time. */
  async plannedEnd(course: string, now: number): Promise<number | null> {
    const next = await this.nextOfCourse(course, now);
    return next && next.at - now <= EARLY ? next.until : null;
  }
}

function isDateOf({ start, rule }: Plan, was: WallTime): boolean {
  if (rule === null) return was === start;
  return (
    timesOf(
      start,
      rule,
      (time) => (time === was ? 'take' : time > was ? 'stop' : 'skip'),
      Date.parse(`${was}Z`),
    ).length > 0
  );
}

function plannedOf(
  { plan, was, at, until, state, why }: Occurrence,
  names: ReadonlyMap<string, string>,
  held: readonly HeldLesson[],
): Planned {
  const { id, course, topic, zone, buffer, rule } = plan;
  return {
    ...{
      plan: id,
      course,
      courseName: names.get(course) ?? '',
      topic,
      was,
      zone,
      at,
      until,
      buffer,
    },
    wall: wallTimeOf(at, zone),
    series: rule !== null,
    ...{ state, why },
    heldAs:
      held.find((one) => one.course === course && isMostOf(one, { at, until }))?.lesson ?? null,
  };
}

/** Whether a lesson took half of the time that was planned, at least. */
function isMostOf(
  held: HeldLesson,
  planned: { readonly at: number; readonly until: number },
): boolean {
  const shared = Math.min(held.until, planned.until) - Math.max(held.at, planned.at);
  return shared * 2 >= planned.until - planned.at;
}
