import type { Id } from '@cuaderno/core';

/**
 * How long after their window asked last somebody counts as waiting, in ms: it asks every three seconds, and where
 * it lies behind others, browsers let it do so once a minute.
 */
export const GONE_AFTER = 75_000;
/** How often it is looked who has gone, in ms. */
const EVERY = 2000;
/** How many of a course are told at most: nobody is shown a list of a thousand made-up names. */
const MOST = 20;

/** Somebody who waits for a lesson to open. */
interface EarlyComer {
  /** As the tutor knows their browser, or as they typed it; `null` where they haven't said. */
  readonly name: string | null;
  /** When their window asked last, in ms since 1970. */
  readonly seenAt: number;
}

/** Who waits for the next lesson of a course, before it is open. Nothing of it is kept. */
export class EarlyComers {
  private readonly courses = new Map<Id, Map<string, EarlyComer>>();
  private readonly timer = setInterval(() => this.look(), EVERY).unref();

  /** @param changed called when somebody has come to a course or gone */
  constructor(private readonly changed: (course: Id) => void) {}

  /** Their window has asked whether the lesson is open. @param browser tells one from another */
  seen(course: Id, browser: string, name: string | null): void {
    const here = this.courses.get(course) ?? new Map<string, EarlyComer>();
    const known = here.get(browser);
    if (!known && here.size >= MOST) return;
    here.set(browser, { name: name ?? known?.name ?? null, seenAt: Date.now() });
    this.courses.set(course, here);
    if (!known || (name !== null && known.name !== name)) this.changed(course);
  }

  /** The lesson has opened: from here on the door tells who is there. */
  opened(course: Id): void {
    if (this.courses.delete(course)) this.changed(course);
  }

  /** Names of those who wait, the first who came first. */
  of(course: Id): (string | null)[] {
    return [...(this.courses.get(course)?.values() ?? [])].map(({ name }) => name);
  }

  /** Courses for whose lessons somebody waits. */
  get waitedFor(): readonly Id[] {
    return [...this.courses.keys()];
  }

  close(): void {
    clearInterval(this.timer);
  }

  private look(): void {
    const before = Date.now() - GONE_AFTER;
    for (const [course, here] of this.courses) {
      const gone = [...here].filter(([, { seenAt }]) => seenAt < before);
      for (const [browser] of gone) here.delete(browser);
      if (here.size === 0) this.courses.delete(course);
      if (gone.length > 0) this.changed(course);
    }
  }
}
