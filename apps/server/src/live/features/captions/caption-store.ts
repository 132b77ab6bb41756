import type { Caption, Id } from '@cuaderno/core';
import { and, desc, eq } from 'drizzle-orm';
import type { Database } from '../../../database/index.js';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import { captions, captionWriters } from './tables.js';

/** Lines of one lesson that are kept in memory, for anyone who comes and to be corrected; all are on disk. */
const KEPT = 50;

/** Captions of lessons, and who types them. */
export class CaptionStore {
  private readonly writers = new WeakMap<LiveLesson, Id>();
  private readonly last = new WeakMap<LiveLesson, readonly Caption[]>();

  constructor(private readonly db: Database) {}

  /** Who types them; `null` for nobody, also while that person isn't in the lesson. */
  writer(lesson: LiveLesson): Id | null {
    const person = lesson.person(this.writers.get(lesson) ?? '');
    return person?.door === 'in' ? person.id : null;
  }

  /** The last lines, the earlier first. */
  lines(lesson: LiveLesson): readonly Caption[] {
    return this.last.get(lesson) ?? [];
  }

  async restore(lesson: LiveLesson): Promise<void> {
    const rows = await this.db
      .select()
      .from(captions)
      .where(eq(captions.lesson, lesson.id))
      .orderBy(desc(captions.at))
      .limit(KEPT);
    this.last.set(
      lesson,
      rows.reverse().map(({ id, by, text, fromAt, at }) => ({ id, by, text, from: fromAt, at })),
    );
    const [row] = await this.db
      .select()
      .from(captionWriters)
      .where(eq(captionWriters.lesson, lesson.id));
    if (row) this.writers.set(lesson, row.person as Id);
  }

  async setWriter(lesson: LiveLesson, person: Id | null): Promise<void> {
    if (person === null) {
      this.writers.delete(lesson);
      await this.db.delete(captionWriters).where(eq(captionWriters.lesson, lesson.id));
      return;
    }
    this.writers.set(lesson, person);
    await this.db
      .insert(captionWriters)
      .values({ lesson: lesson.id, person })
      .onConflictDoUpdate({ target: captionWriters.lesson, set: { person } });
  }

  /**
   * Keeps a line, or corrects one of the last of the same person; on disk when this returns.
   * `null` where the id is of something else.
   */
  async write(lesson: LiveLesson, line: Caption): Promise<Caption | null> {
    const known = this.lines(lesson).find(({ id }) => id === line.id);
    if (!known) {
      const done = await this.db
        .insert(captions)
        .values({ ...line, lesson: lesson.id, fromAt: line.from })
        .onConflictDoNothing()
        .returning({ id: captions.id });
      if (done.length === 0) return null;
      this.last.set(lesson, [...this.lines(lesson), line].slice(-KEPT));
      return line;
    }
    if (known.by !== line.by) return null;
    // Sent once more, because nobody could say whether it came: it is there.
    if (known.text === line.text) return known;
    const corrected = { ...known, text: line.text };
    await this.db
      .update(captions)
      .set({ text: line.text })
      .where(and(eq(captions.id, line.id), eq(captions.lesson, lesson.id)));
    this.last.set(
      lesson,
      this.lines(lesson).map((one) => (one.id === line.id ? corrected : one)),
    );
    return corrected;
  }
}
