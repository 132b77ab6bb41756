import { signal } from '@angular/core';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Subject } from 'rxjs';
import type { LessonFeature, Send, ServerHandlers, Stand } from '../feature';

/** What is to be seen, and on which board. */
export interface PlacedView {
  readonly board: Id;
  readonly view: View;
}

/** Windows that follow that of the one who leads, as long as that is wished, or once. */
export class InStepState implements LessonFeature<'inStep'> {
  /** Whether windows follow, and what the leader's showed last. */
  readonly on = signal(false);
  readonly led = signal<PlacedView | null>(null);
  /** All are brought to one place, once. */
  readonly gathered = new Subject<PlacedView>();

  readonly handlers: ServerHandlers<'inStep'> = {
    step: ({ on }) => {
      this.on.set(on);
      if (!on) this.led.set(null);
    },
    view: ({ board, view, once }) =>
      once ? this.gathered.next({ board, view }) : this.led.set({ board, view }),
  };

  constructor(
    private readonly send: Send,
    private readonly stand: Stand,
  ) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.on.set(false);
    this.led.set(null);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  setStep(on: boolean): void {
    this.stand({ kind: 'step', on }, () => this.on() === on);
  }

  /** @param final whether this is where the window stays for now */
  sendView(board: Id, view: View, final: boolean): void {
    this.send({ kind: 'view', board, view, final });
  }

  gather(board: Id, view: View): void {
    this.send({ kind: 'gather', board, view });
  }

  /** Brings one window of a student here, once. */
  gatherOne(window: Id, board: Id, view: View): void {
    this.send({ kind: 'gather.one', to: window, board, view });
  }
}
