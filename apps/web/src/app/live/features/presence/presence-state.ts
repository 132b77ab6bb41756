import { signal } from '@angular/core';
import type { LessonWindow, Machine, Person, View, WindowSize } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Who is here, and what their windows show. */
export class PresenceState implements LessonFeature<'presence'> {
  readonly people = signal<readonly Person[]>([]);
  /** The windows that they have, the earlier first. */
  readonly windows = signal<readonly LessonWindow[]>([]);

  readonly handlers: ServerHandlers<'presence'> = {
    people: ({ people }) => this.people.set(people),
    windows: ({ windows }) => this.windows.set(windows),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.people.set([]);
    this.windows.set([]);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  /** What this window shows, for the tutor to know. */
  showWindow(board: Id, machine: Machine, size: WindowSize, view: View): void {
    this.send({ kind: 'window', board, machine, size, view });
  }
}
