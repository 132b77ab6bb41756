import { maySee } from '@cuaderno/core';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** The tutor's word at the door, and who is sent out; it holds at once. */
export class DoorWords implements LiveFeature<'door'> {
  readonly handlers: ClientHandlers<'door'> = {
    door: ({ lesson }, { who, word }) => {
      if (lesson)
        this.classroom.keep(
          this.classroom.lessons.door.word(lesson, who, word),
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
}
