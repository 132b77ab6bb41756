import { signal } from '@angular/core';
import type { Machine, Person, View, WindowSize } from '@cuaderno/core';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Who is here, and what their windows show. */
export class PresenceState implements LessonFeature<'presence'> {
  readonly people = signal<readonly Person[]>([]);

  readonly handlers: ServerHandlers<'presence'> = {
    people: ({ people }) => this.people.set(people),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.people.set([]);
  }

  /** What this window shows, for the tutor to know. */
  showWindow(machine: Machine, size: WindowSize, view: View): void {
    this.send({ kind: 'window', machine, size, view });
  }
}
