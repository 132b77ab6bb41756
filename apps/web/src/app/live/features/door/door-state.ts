import { signal } from '@angular/core';
import type { Arrival } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { DoorWord } from '@cuaderno/core/permissions';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Who comes, and whom the tutor lets in. */
export class LessonDoorState implements LessonFeature<'door'> {
  /** Who is at the door and who was sent out, for the tutor. */
  readonly arrivals = signal<readonly Arrival[]>([]);

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

  /** The tutor's word to someone at the door, or in the lesson. */
  decide(who: Id | 'all', word: DoorWord): void {
    this.send({ kind: 'door', who, word });
  }
}
