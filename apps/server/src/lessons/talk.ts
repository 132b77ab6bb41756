import type { ChatLine, ChatTo, Id, Signal } from '@cuaderno/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import type { LiveLesson, Present } from './live-lesson.js';
import { chatLines, gestures } from './tables.js';

/** Messages of one lesson that are kept in memory for whoever comes; all are on disk. */
const KEPT = 2000;

/** Hands, signals and the chat of a lesson, kept with it. */
export class Talk {
  constructor(private readonly db: Database) {}

  /** What was said before the server stopped. */
  async restore(lesson: LiveLesson): Promise<void> {
    const rows = await this.db
      .select()
      .from(chatLines)
      .where(and(eq(chatLines.lesson, lesson.id), isNull(chatLines.emptiedAt)))
      .orderBy(asc(chatLines.at));
    lesson.chat = rows.slice(-KEPT).map(({ id, by, to, text, at }) => ({ id, by, to, text, at }));
  }

  /** Keeps a message; on disk when this returns. `null` where it was kept before. */
  async write(
    lesson: LiveLesson,
    by: Id,
    message: { readonly id: Id; readonly to: ChatTo; readonly text: string },
  ): Promise<ChatLine | null> {
    if (lesson.chat.some(({ id }) => id === message.id)) return null;
    const line: ChatLine = { ...message, by, at: Date.now() };
    lesson.chat = [...lesson.chat, line].slice(-KEPT);
    try {
      const done = await this.db
        .insert(chatLines)
        .values({ ...line, lesson: lesson.id })
        .onConflictDoNothing()
        .returning({ id: chatLines.id });
      if (done.length > 0) return line;
    } catch (error) {
      lesson.chat = lesson.chat.filter(({ id }) => id !== line.id);
      throw error;
    }
    lesson.chat = lesson.chat.filter((one) => one !== line);
    return null;
  }

  /** Nobody reads what was written so far any more. */
  async empty(lesson: LiveLesson): Promise<void> {
    lesson.chat = [];
    await this.db
      .update(chatLines)
      .set({ emptiedAt: Date.now() })
      .where(and(eq(chatLines.lesson, lesson.id), isNull(chatLines.emptiedAt)));
  }

  /** Returns whether it changed anything. */
  async hand(lesson: LiveLesson, person: Present, up: boolean): Promise<boolean> {
    if ((person.handAt !== null) === up) return false;
    person.handAt = up ? lesson.nextHand++ : null;
    await this.note(lesson, person.id, up ? 'hand' : 'hand.down');
    return true;
  }

  async signal(lesson: LiveLesson, person: Present, signal: Signal | null): Promise<boolean> {
    if (person.signal === signal) return false;
    person.signal = signal;
    await this.note(lesson, person.id, signal ?? 'signal.none');
    return true;
  }

  private async note(lesson: LiveLesson, person: Id, what: string): Promise<void> {
    await this.db.insert(gestures).values({ lesson: lesson.id, person, what, at: Date.now() });
  }
}
