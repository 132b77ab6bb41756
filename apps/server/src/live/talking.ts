import { appliesTo, ChatText } from '@cuaderno/core';
import type { ChatLine, ChatTo, Id, Signal } from '@cuaderno/core';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { Allowance } from './allowance.js';
import type { Classroom } from './classroom.js';
import type { LiveConnection } from './connection.js';

/** Messages one person may write: so many a second on the whole, and so many at once. */
const RATE = 1;
const AT_ONCE = 8;
/** Hands and signals one window may give: so many a second, and so many at once. */
const GESTURES = 2;
const GESTURES_AT_ONCE = 10;

/** Hands, signals and the chat. */
export class Talking {
  private readonly allowances = new WeakMap<LiveConnection, Allowance>();
  private readonly gestures = new WeakMap<LiveConnection, Allowance>();

  constructor(private readonly room: Classroom) {}

  hand(from: LiveConnection, up: boolean): void {
    const { lesson } = from;
    const person = lesson?.person(from.person);
    if (!lesson || person?.role !== 'student' || !this.mayGesture(from)) return;
    this.room.keep(this.room.lessons.talk.hand(lesson, person, up), 'a hand');
    this.room.tellPeople(lesson);
  }

  lower(from: LiveConnection, who: Id | 'all'): void {
    const { lesson } = from;
    if (!lesson) return;
    for (const student of lesson.students())
      if (who === 'all' || student.id === who)
        this.room.keep(this.room.lessons.talk.hand(lesson, student, false), 'a hand');
    this.room.tellPeople(lesson);
  }

  signal(from: LiveConnection, signal: Signal | null): void {
    const { lesson } = from;
    const person = lesson?.person(from.person);
    if (!lesson || person?.role !== 'student' || !this.mayGesture(from)) return;
    this.room.keep(this.room.lessons.talk.signal(lesson, person, signal), 'a signal');
    // The others aren't told; one's own windows are.
    this.room.tellPeople(lesson);
  }

  clearSignals(from: LiveConnection): void {
    const { lesson } = from;
    if (!lesson) return;
    for (const student of lesson.students())
      this.room.keep(this.room.lessons.talk.signal(lesson, student, null), 'a signal');
    this.room.tellPeople(lesson);
  }

  /** A message is told when it is on disk, to whoever may read it. */
  async chat(from: LiveConnection, id: Id, to: ChatTo, written: string): Promise<void> {
    const { lesson } = from;
    if (!lesson) return;
    const read = ChatText.safeParse(written);
    if (!read.success) return from.refuse('chat-text');
    if (!this.mayWrite(from, to)) return from.refuse('chat-off');
    const allowance = this.allowances.get(from) ?? new Allowance(RATE, AT_ONCE);
    this.allowances.set(from, allowance);
    if (from.role === 'student' && !allowance.take()) return from.refuse('chat-too-fast');
    const line = await this.room.lessons.talk.write(lesson, from.person, {
      id,
      to,
      text: read.data,
    });
    if (!line) return;
    for (const window of this.room.windows(from.board))
      if (mayRead(window, line)) window.tell({ kind: 'chat', lines: [line] });
  }

  empty(from: LiveConnection): void {
    const { lesson } = from;
    if (!lesson) return;
    this.room.keep(this.room.lessons.talk.empty(lesson), 'emptying the chat');
    for (const window of this.room.windows(from.board)) window.tell({ kind: 'chat.empty' });
  }

  greet(window: LiveConnection): void {
    const { lesson } = window;
    if (!lesson) return;
    const lines = lesson.chat.filter((line) => mayRead(window, line));
    window.tell({ kind: 'chat.empty' });
    if (lines.length > 0) window.tell({ kind: 'chat', lines });
  }

  /** A hand that goes up and down all the time says nothing, and costs everyone. */
  private mayGesture(from: LiveConnection): boolean {
    const allowance = this.gestures.get(from) ?? new Allowance(GESTURES, GESTURES_AT_ONCE);
    this.gestures.set(from, allowance);
    return allowance.take();
  }

  private mayWrite(from: LiveConnection, to: ChatTo): boolean {
    if (from.role === 'tutor') return to === 'all' || isStudent(from.lesson!, to);
    if (to !== 'all' && to !== 'tutor') return false;
    const applies = appliesTo(from.actor(), from.boardNow() ?? {}, undefined);
    return to === 'all' ? applies.chatAll : applies.chatTutor;
  }
}

function isStudent(lesson: LiveLesson, to: ChatTo): boolean {
  return lesson.students().some(({ id }) => id === to);
}

/** What is for the tutor alone is theirs and its writer's. */
function mayRead(window: LiveConnection, { by, to }: ChatLine): boolean {
  return window.role === 'tutor' || to === 'all' || by === window.person || to === window.person;
}
