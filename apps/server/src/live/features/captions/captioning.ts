import { CaptionText, MAX_CAPTION, oneLine, pack } from '@cuaderno/core';
import type { Id, ServerMessage } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import { WindowAllowances } from '../../window-allowances.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';
import type { CaptionStore } from './caption-store.js';

/** Lines that a window may send: so many a second on the whole, and so many at once, as after a break. */
const LINES = 2;
const LINES_AT_ONCE = 40;
/** How often it may tell how far a line is typed, a second. */
const TYPING = 10;
/** Lines that who comes late is told. */
const TOLD = 8;

/** Typed captions: who types them, and what they type, told to all. */
export class Captioning implements LiveFeature<'captions'> {
  readonly handlers: ClientHandlers<'captions'> = {
    'captions.writer': (window, { who }) => this.name(window, who),
    caption: (window, { id, text }) => this.hear(window, id, text),
    'caption.typing': (window, { text }) => this.type(window, text),
  };

  private readonly lines = new WindowAllowances(LINES, LINES_AT_ONCE);
  private readonly typing = new WindowAllowances(TYPING, TYPING);
  /** When typing of the line under way began, in ms since 1970. */
  private readonly begun = new WeakMap<LiveLesson, number>();

  constructor(
    private readonly classroom: Classroom,
    private readonly store: CaptionStore,
  ) {}

  restore(lesson: LiveLesson): Promise<void> {
    return this.store.restore(lesson);
  }

  sendSnapshot(window: LiveConnection): void {
    if (window.lesson) window.tell(this.state(window.lesson));
  }

  leave(): void {
    // Who types may come back.
  }

  /** The person who is named types from now on, and nobody else. */
  private name({ lesson }: LiveConnection, who: Id | null): void {
    if (!lesson || (who !== null && lesson.person(who)?.door !== 'in')) return;
    this.begun.delete(lesson);
    this.classroom.keep(this.store.setWriter(lesson, who), 'who types captions');
    for (const window of this.classroom.windows(lesson)) window.tell(this.state(lesson));
  }

  /** What can't be kept is said to who typed it, who has it still. */
  private hear(from: LiveConnection, id: Id, typed: string): void {
    this.keep(from, id, typed).catch((error: unknown) => {
      this.classroom.failed(error, 'a line of captions');
      from.refuse('caption-not-kept');
    });
  }

  /** A line is told when it is on disk. */
  private async keep(from: LiveConnection, id: Id, typed: string): Promise<void> {
    const { lesson } = from;
    if (!lesson) return;
    if (this.store.writer(lesson) !== from.person) return from.refuse('captions-not-yours');
    const read = CaptionText.safeParse(typed);
    if (!read.success || !this.lines.take(from)) return from.refuse('caption-not-kept');
    const at = Date.now();
    const begun = this.begun.get(lesson) ?? at;
    this.begun.delete(lesson);
    const mine = { id, by: from.person, text: read.data, from: begun, at };
    const line = await this.store.write(lesson, mine);
    if (!line) return from.refuse('caption-not-kept');
    for (const window of this.classroom.windows(lesson)) window.tell({ kind: 'caption', line });
  }

  /** How far a line is typed: it may be lost on its way, the whole line follows. */
  private type(from: LiveConnection, typed: string): void {
    const { lesson } = from;
    if (!lesson || this.store.writer(lesson) !== from.person) return;
    if (!this.typing.take(from)) return;
    const text = [...oneLine(typed)].slice(0, MAX_CAPTION).join('');
    if (text === '') this.begun.delete(lesson);
    else if (!this.begun.has(lesson)) this.begun.set(lesson, Date.now());
    const bytes = pack({ kind: 'caption.typing', text } satisfies ServerMessage);
    for (const window of this.classroom.windows(lesson))
      if (window !== from) window.sendLive(bytes);
  }

  private state(lesson: LiveLesson): ServerMessage {
    const lines = this.store.lines(lesson).slice(-TOLD);
    return { kind: 'captions', writer: this.store.writer(lesson), lines };
  }
}
