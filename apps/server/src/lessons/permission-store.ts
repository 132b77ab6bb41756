import { withRules } from '@cuaderno/core';
import type { Id, RulesOver, Trust } from '@cuaderno/core';
import { and, eq, inArray } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import type { LiveLesson, Participant } from './live-lesson.js';
import { lessons, people } from './tables.js';

/**
 * What students may do, and who leads. It holds from the moment it is said, for anyone who is there and for
 * anyone who comes late, and goes to disk after that.
 */
export class PermissionStore {
  constructor(private readonly db: Database) {}

  /**
   * Gives or takes pens; for all, it is what the class has from now on. It holds at once.
   * Returns whose trust changed, and what ends when that is on disk.
   */
  trust(
    lesson: LiveLesson,
    who: Id | 'all',
    trust: Trust,
  ): { readonly changed: readonly Participant[]; readonly kept: Promise<void> } {
    if (who === 'all') lesson.rules = { ...lesson.rules, trust };
    const changed = lesson
      .students()
      .filter((person) => (who === 'all' || person.id === who) && person.trust !== trust);
    for (const person of changed) person.trust = trust;
    return { changed, kept: this.keepTrust(lesson, changed, trust, who === 'all') };
  }

  private async keepTrust(
    lesson: LiveLesson,
    changed: readonly Participant[],
    trust: Trust,
    all: boolean,
  ): Promise<void> {
    const ids = changed.map(({ id }) => id);
    if (ids.length > 0)
      await this.db
        .update(people)
        .set(trust === 'view' ? { trust } : { trust, hadPen: true })
        .where(and(eq(people.lesson, lesson.id), inArray(people.id, ids)));
    if (all) await this.keep(lesson);
  }

  /**
   * Says what else students may do. Said for all, it is what holds for each: what was said for one about
   * the same is unsaid.
   */
  async setRules(lesson: LiveLesson, who: Id | 'all', over: RulesOver): Promise<void> {
    const meant = lesson.students().filter(({ id }) => who === 'all' || id === who);
    const said = who === 'all' ? unsaid(over) : over;
    const changed = meant.filter((person) => {
      const rules = withRules(person.rules, said);
      const differs = JSON.stringify(rules) !== JSON.stringify(person.rules);
      person.rules = rules;
      return differs;
    });
    if (who === 'all') {
      lesson.rules = withRules(lesson.rules, over);
      await this.keep(lesson);
    }
    for (const { id, rules } of changed)
      await this.db
        .update(people)
        .set({ rules })
        .where(and(eq(people.lesson, lesson.id), eq(people.id, id)));
  }

  /** Hands the lead to a student or helper who is in, or back to the tutor. Returns whether it changed. */
  async lead(lesson: LiveLesson, who: Id | null): Promise<boolean> {
    const isLeader = who !== null && lesson.mayLead(who);
    const lead = isLeader ? who : null;
    if (lead === lesson.lead) return false;
    lesson.lead = lead;
    await this.keep(lesson);
    return true;
  }

  /** Plans the end of the lesson, in ms since 1970; `null` for an open end. */
  async plan(lesson: LiveLesson, endsAt: number | null): Promise<void> {
    lesson.endsAt = endsAt;
    await this.keep(lesson);
  }

  private async keep({ id, rules, lead, endsAt }: LiveLesson): Promise<void> {
    await this.db.update(lessons).set({ rules, lead, endsAt }).where(eq(lessons.id, id));
  }
}

function unsaid(over: RulesOver): RulesOver {
  return Object.fromEntries(Object.keys(over).map((key) => [key, null]));
}
