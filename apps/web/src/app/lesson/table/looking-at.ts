import { effect, signal } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import type { BoardSession } from '../../live/board-session';

/**
 * How the tutor looks at a lesson's board: by oneself though a student leads, with names on lines, one person's ink
 * alone. Another lesson begins as boards are looked at. One object, made where effects can be.
 */
export class LookingAt {
  readonly around = signal(false);
  readonly signed = signal(false);
  readonly only = signal<Id | null>(null);

  constructor(session: () => BoardSession | null) {
    effect(() => {
      if (session()?.lesson()) return;
      this.around.set(false);
      this.signed.set(false);
      this.only.set(null);
    });
  }
}
