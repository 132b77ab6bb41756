import { appliesTo, ChatText, maySee, teaches } from '@cuaderno/core';
import type { Audience, ChatLine, ChatTo, Id, Signal } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import { WindowAllowances } from '../../window-allowances.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';
import type { TalkStore } from './talk-store.js';

/** Messages one person may write: so many a second on the whole, and so many at once. */
const RATE = 1;
const AT_ONCE = 8;
/** Hands and signals one window may give: so many a second, and so many at once. */
const GESTURES = 2;
const GESTURES_AT_ONCE = 10;

/** Hands, signals and the chat. */
export class Talking implements LiveFeature<'talk'> {
  readonly handlers: ClientHandlers<'talk'> = {
    hand: (window, { up }) => this.hand(window, up),
    lower: (window, { who }) => this.lower(window, who),
    signal: (window, { signal }) => this.signal(window, signal),
    'signals.clear': (window) => this.clearSignals(window),
    chat: (window, { id, to, text }) => this.hear(window, id, to, text),
    'chat.empty': (window) => this.empty(window),
  };

  private readonly messages = new WindowAllowances(RATE, AT_ONCE);
  /** A hand that goes up and down all the time says nothing, and costs everyone. */
  private readonly gestures = new WindowAllowances(GESTURES, GESTURES_AT_ONCE);

  constructor(
    private readonly classroom: Classroom,
    private readonly store: TalkStore,
  ) {}

  restore(lesson: LiveLesson): Promise<void> {
    return this.store.restore(lesson);
  }

  hand(from: LiveConnection, up: boolean): void {
    const { lesson } = from;
    const person = lesson?.person(from.person);
    if (!lesson || person?.role !== 'student' || !this.gestures.take(from)) return;
    this.classroom.keep(this.store.hand(lesson, person, up), 'a hand');
    this.classroom.tellPeople(lesson);
  }

  lower(from: LiveConnection, who: Id | 'all'): void {
    const { lesson } = from;
    if (!lesson) return;
    for (const student of lesson.students())
      if (who === 'all' || student.id === who)
        this.classroom.keep(this.store.hand(lesson, student, false), 'a hand');
    this.classroom.tellPeople(lesson);
  }

  signal(from: LiveConnection, signal: Signal | null): void {
    const { lesson } = from;
    const person = lesson?.person(from.person);
    if (!lesson || person?.role !== 'student' || !this.gestures.take(from)) return;
    this.classroom.keep(this.store.signal(lesson, person, signal), 'a signal');
    // The others aren't told; one's own windows are.
    this.classroom.tellPeople(lesson);
  }

  clearSignals(from: LiveConnection): void {
    const { lesson } = from;
    if (!lesson) return;
    for (const student of lesson.students())
      this.classroom.keep(this.store.signal(lesson, student, null), 'a signal');
    this.classroom.tellPeople(lesson);
  }

  /** What can't be kept is said to who wrote it. */
  private hear(from: LiveConnection, id: Id, to: ChatTo, written: string): void {
    this.chat(from, id, to, written).catch((error: unknown) => {
      this.classroom.failed(error, 'a message');
      from.refuse('chat-not-kept');
    });
  }

  /** A message is told when it is on disk, to anyone who may read it. */
  private async chat(from: LiveConnection, id: Id, to: ChatTo, written: string): Promise<void> {
    const { lesson } = from;
    if (!lesson) return;
    const read = ChatText.safeParse(written);
    if (!read.success) return from.refuse('chat-text');
    if (!this.mayWrite(from, to)) return from.refuse('chat-off');
    if (from.role !== 'tutor' && !this.messages.take(from)) return from.refuse('chat-too-fast');
    const line = await this.store.write(lesson, from.person, {
      id,
      to,
      text: read.data,
    });
    if (!line) return;
    for (const window of this.classroom.windowsFor(lesson, readersOf(line)))
      window.tell({ kind: 'chat', lines: [line] });
  }

  empty(from: LiveConnection): void {
    const { lesson } = from;
    if (!lesson) return;
    this.classroom.keep(this.store.empty(lesson), 'emptying the chat');
    for (const window of this.classroom.windows(lesson)) window.tell({ kind: 'chat.empty' });
  }

  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (!lesson) return;
    const lines = this.store.chat(lesson).filter((line) => maySee(window.viewer, readersOf(line)));
    window.tell({ kind: 'chat.empty' });
    if (lines.length > 0) window.tell({ kind: 'chat', lines });
  }

  leave(): void {
    // A hand stays up: whoever raised it may come back.
  }

  private mayWrite(from: LiveConnection, to: ChatTo): boolean {
    // One who helps writes to the tutor alone, too.
    if (teaches(from.role) && to !== 'tutor') return to === 'all' || isInside(from, to);
    if (to !== 'all' && to !== 'tutor') return false;
    // What a board limits holds for those who are on it.
    const board = from.lesson?.person(from.person)?.board ?? from.lesson?.startBoard ?? '';
    const applies = appliesTo(from.actor(), this.classroom.boardOf(board) ?? {}, undefined);
    return to === 'all' ? applies.chatAll : applies.chatTutor;
  }
}

/** Whether it is somebody else who is in the lesson. */
function isInside({ lesson, person }: LiveConnection, to: Id): boolean {
  return to !== person && lesson?.hasIn(to) === true;
}

/** What is for one person is theirs and its writer's. */
function readersOf({ by, to }: ChatLine): Audience {
  return to === 'all' ? 'everyone' : new Set([by, to]);
}
