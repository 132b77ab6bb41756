import { maySee } from '@cuaderno/core';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** The word at the door of those who teach, as what somebody is let in, and who is sent out; it holds at once. */
export class DoorWords implements LiveFeature<'door'> {
  readonly handlers: ClientHandlers<'door'> = {
    door: (window, { who, word, as }) => {
      const { lesson } = window;
      if (as && window.role !== 'tutor') return window.refuse('tutor-only');
      if (lesson)
        this.classroom.keep(
          this.classroom.lessons.door.word(lesson, who, word, as),
          'a word at the door',
        );
    },
  };

  constructor(private readonly classroom: Classroom) {}

  restore(): void {
    // Where everyone stands is kept with the people of the lesson.
  }

  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (lesson && maySee(window.viewer, 'tutors'))
      window.tell({ kind: 'door', arrivals: lesson.arrivals() });
  }

  leave(): void {
    // Who is in may come back.
  }
}
