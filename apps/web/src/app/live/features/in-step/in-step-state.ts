import { signal } from '@angular/core';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Subject } from 'rxjs';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

/** Windows that follow that of the one who leads, as long as that is wished, or once. */
export class InStepState implements LessonFeature<'inStep'> {
  /** Whether windows follow, and what the leader's showed last. */
  readonly on = signal(false);
  readonly led = signal<View | null>(null);
  /** All are brought to one place, once. */
  readonly gathered = new Subject<View>();

  readonly handlers: ServerHandlers<'inStep'> = {
    step: ({ on }) => {
      this.on.set(on);
      if (!on) this.led.set(null);
    },
    view: ({ view, once }) => (once ? this.gathered.next(view) : this.led.set(view)),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.on.set(false);
    this.led.set(null);
  }

  setStep(on: boolean): void {
    this.send({ kind: 'step', on });
  }

  /** @param final whether this is where the window stays for now */
  sendView(view: View, final: boolean): void {
    this.send({ kind: 'view', view, final });
  }

  gather(view: View): void {
    this.send({ kind: 'gather', view });
  }

  /** Brings one window of a student here, once. */
  gatherOne(window: Id, view: View): void {
    this.send({ kind: 'gather.one', to: window, view });
  }
}
