import { computed, signal } from '@angular/core';
import type { Arrival } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { DoorWord, GivenRole } from '@cuaderno/core/permissions';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Who comes, and whom the tutor lets in. */
export class LessonDoorState implements LessonFeature<'door'> {
  /** Who is at the door and who was sent out, for the tutor. */
  readonly arrivals = signal<readonly Arrival[]>([]);
  /** Who waits for an answer. */
  readonly waiting = computed(() => this.arrivals().filter(({ state }) => state === 'waiting'));

  readonly handlers: ServerHandlers<'door'> = {
    door: ({ arrivals }) => this.arrivals.set(arrivals),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.arrivals.set([]);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  /**
   * What is said to someone at the door, or in the lesson.
   * @param as what they are let in as, if that is another than they come as; the tutor's alone to say
   */
  decide(who: Id | 'all', word: DoorWord, as?: GivenRole): void {
    this.send({ kind: 'door', who, word, ...(as && { as }) });
  }
}
