import type { Id, RulesOver, ServerMessage, Trust } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** Who holds a pen, what else they may do, who leads, and until when the lesson is planned. */
export class PenControl implements LiveFeature<'pens'> {
  readonly handlers: ClientHandlers<'pens'> = {
    trust: (window, { who, trust }) => this.trust(window, who, trust),
    rules: (window, { who, over }) => this.rules(window, who, over),
    lead: ({ lesson }, { who }) => lesson && this.lead(lesson, who),
    plan: (window, { endsAt }) => this.plan(window, endsAt),
  };

  constructor(private readonly classroom: Classroom) {}

  /** One touch, and it holds: nothing these people send is taken from here on. */
  trust(from: LiveConnection, who: Id | 'all', trust: Trust): void {
    const { lesson } = from;
    if (!lesson) return;
    const given = this.classroom.lessons.permissions.trust(lesson, who, trust);
    this.classroom.keep(given.kept, 'who has a pen');
    const changed = new Set(given.changed.map(({ id }) => id));
    if (trust === 'view')
      for (const window of this.classroom.windows(lesson))
        if (changed.has(window.person)) window.stroke.stop();
    const tell = (): void => {
      this.classroom.tellPeople(lesson);
      if (who === 'all') this.tellClass(lesson);
    };
    // Taken back, it is told at once. Given, it is told when it is on disk: a server that is killed takes back no pen.
    if (trust === 'view') tell();
    else given.kept.then(tell, tell);
  }

  rules(from: LiveConnection, who: Id | 'all', over: RulesOver): void {
    const { lesson } = from;
    if (!lesson) return;
    this.classroom.keep(
      this.classroom.lessons.permissions.setRules(lesson, who, over),
      'what students may do',
    );
    this.classroom.tellPeople(lesson);
    if (who === 'all') this.tellClass(lesson);
  }

  /** Hands over the lead. Windows that were led are where they are until the new one moves. */
  lead(lesson: LiveLesson, who: Id | null): void {
    const before = lesson.lead;
    this.classroom.keep(this.classroom.lessons.permissions.lead(lesson, who), 'who leads');
    if (lesson.lead === before) return;
    lesson.view = null;
    this.tellClass(lesson);
    this.classroom.tellPeople(lesson);
  }

  plan(from: LiveConnection, endsAt: number | null): void {
    const { lesson } = from;
    if (!lesson) return;
    this.classroom.keep(this.classroom.lessons.permissions.plan(lesson, endsAt), 'the planned end');
    this.tellClass(lesson);
  }

  /** Gives up strokes under way of people who may no longer write where they write. */
  stopStrokes(lesson: LiveLesson): void {
    for (const window of this.classroom.windows(lesson)) window.stroke.check();
  }

  restore(): void {
    // Pens and rules are kept with the lesson and its people.
  }

  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (lesson) window.tell(classOf(lesson));
  }

  leave(): void {
    // Pens are people’s.
  }

  tellClass(lesson: LiveLesson): void {
    const message = classOf(lesson);
    // It may have been closed while something of it was kept.
    for (const window of this.classroom.windows(lesson)) window.tell(message);
  }
}

function classOf({ rules, lead, endsAt }: LiveLesson): ServerMessage {
  return { kind: 'class', rules, lead, endsAt };
}
