import type { Id } from '@cuaderno/core';
import type { LiveLesson, Participant } from '../lessons/live-lesson.js';
import type { DoorConnection } from './door-connection.js';

/** Everyone at the doors of lessons. They are told where they stand, and nobody else hears of them. */
export class Doorstep {
  private readonly waiting = new Map<Id, Set<DoorConnection>>();

  /** @param changed called when somebody came to a lesson's door or left it */
  constructor(private readonly changed: (lesson: LiveLesson) => void) {}

  come(make: (left: (connection: DoorConnection) => void) => DoorConnection): void {
    const connection = make((gone) => this.leave(gone));
    const { lesson, person } = connection;
    const here = this.waiting.get(lesson.id) ?? new Set();
    here.add(connection);
    this.waiting.set(lesson.id, here);
    person.doorWindows++;
    this.changed(lesson);
  }

  /** Tells those whose standing has changed. */
  tell(lesson: LiveLesson, moved: readonly Participant[]): void {
    for (const connection of this.waiting.get(lesson.id) ?? [])
      if (moved.includes(connection.person)) connection.tell();
  }

  /** The lesson is over: nobody waits for it any more. */
  over(lesson: LiveLesson): void {
    for (const connection of this.waiting.get(lesson.id) ?? []) connection.over();
  }

  private leave(connection: DoorConnection): void {
    const { lesson, person } = connection;
    const here = this.waiting.get(lesson.id);
    if (!here?.delete(connection)) return;
    if (here.size === 0) this.waiting.delete(lesson.id);
    person.doorWindows--;
    this.changed(lesson);
  }
}
