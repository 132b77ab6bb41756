import type { ChatLine, ChatTo, Id, Signal } from '@cuaderno/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Database } from '../../../database/index.js';
import type { LiveLesson, Participant } from '../../../lessons/live-lesson.js';
import { chatLines, gestures } from './tables.js';

/** Messages of one lesson that are kept in memory for anyone who comes; all are on disk. */
const KEPT = 2000;

/** Hands, signals and the chat of a lesson, kept with it. */
export class TalkStore {
  private readonly chats = new WeakMap<LiveLesson, readonly ChatLine[]>();

  constructor(private readonly db: Database) {}

  /** What is written in the chat, the earlier first. */
  chat(lesson: LiveLesson): readonly ChatLine[] {
    return this.chats.get(lesson) ?? [];
  }

  /** What was said before the server stopped. */
  async restore(lesson: LiveLesson): Promise<void> {
    const rows = await this.db
      .select()
      .from(chatLines)
      .where(and(eq(chatLines.lesson, lesson.id), isNull(chatLines.emptiedAt)))
      .orderBy(asc(chatLines.at));
    this.chats.set(
      lesson,
      rows.slice(-KEPT).map(({ id, by, to, text, at }) => ({ id, by, to, text, at })),
    );
  }

  /** Keeps a message; on disk when this returns. `null` where it was kept before. */
  async write(
    lesson: LiveLesson,
    by: Id,
    message: { readonly id: Id; readonly to: ChatTo; readonly text: string },
  ): Promise<ChatLine | null> {
    if (this.chat(lesson).some(({ id }) => id === message.id)) return null;
    const line: ChatLine = { ...message, by, at: Date.now() };
    this.chats.set(lesson, [...this.chat(lesson), line].slice(-KEPT));
    try {
      const done = await this.db
        .insert(chatLines)
        .values({ ...line, lesson: lesson.id })
        .onConflictDoNothing()
        .returning({ id: chatLines.id });
      if (done.length > 0) return line;
    } catch (error) {
      this.drop(lesson, line);
      throw error;
    }
    this.drop(lesson, line);
    return null;
  }

  /** Nobody reads what was written so far any more. */
  async empty(lesson: LiveLesson): Promise<void> {
    this.chats.delete(lesson);
    await this.db
      .update(chatLines)
      .set({ emptiedAt: Date.now() })
      .where(and(eq(chatLines.lesson, lesson.id), isNull(chatLines.emptiedAt)));
  }

  /** Returns whether it changed anything. */
  async hand(lesson: LiveLesson, person: Participant, up: boolean): Promise<boolean> {
    if ((person.handAt !== null) === up) return false;
    person.handAt = up ? lesson.nextHand++ : null;
    await this.note(lesson, person.id, up ? 'hand' : 'hand.down');
    return true;
  }

  async signal(lesson: LiveLesson, person: Participant, signal: Signal | null): Promise<boolean> {
    if (person.signal === signal) return false;
    person.signal = signal;
    await this.note(lesson, person.id, signal ?? 'signal.none');
    return true;
  }

  private drop(lesson: LiveLesson, line: ChatLine): void {
    this.chats.set(
      lesson,
      this.chat(lesson).filter(({ id }) => id !== line.id),
    );
  }

  private async note(lesson: LiveLesson, person: Id, what: string): Promise<void> {
    await this.db.insert(gestures).values({ lesson: lesson.id, person, what, at: Date.now() });
  }
}
