import { effect, untracked } from '@angular/core';
import type { Signal } from '@angular/core';
import type { View } from '@cuaderno/core';
import type { BoardSession } from '../live/board-session';

/** How often a window that leads says what it shows, in ms, and after how long it rests. */
const EVERY = 33;
const REST = 180;

/** The stage, as far as it leads or is led. */
export interface Led {
  readonly part: View | null;
  readonly moved: Signal<number>;
  follow(view: View | null): void;
  show(view: View): void;
}

/** Being in step: a tutor's window says what it shows, a student's shows what it is told. */
export class InStep {
  private saidAt = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told: string | null = null;

  /** To be made where effects can be. */
  constructor(session: () => BoardSession, stage: () => Led) {
    effect((onCleanup) => {
      const live = session();
      const where = stage();
      const led = live.role() === 'student' && live.inStep() ? live.led() : null;
      untracked(() => where.follow(led));
      const gathered = live.gathered.subscribe((view) => where.show(view));
      onCleanup(() => gathered.unsubscribe());
    });
    effect(() => {
      const live = session();
      const leads = live.role() === 'tutor' && live.inStep() && live.line() === 'live';
      if (!leads) {
        clearTimeout(this.timer);
        this.told = null;
        return;
      }
      stage().moved();
      untracked(() => this.say(live, stage().part));
    });
  }

  /** At most so many times a second while it moves, and once more where it stays. */
  private say(live: BoardSession, view: View | null): void {
    clearTimeout(this.timer);
    // What is drawn counts as a move of the stage; only where it looks is told.
    if (!view) return;
    // A page that was held back leads nowhere until it is shown: then all are brought to it.
    const held = live.board().pages.get(view.page)?.held ?? false;
    const text = JSON.stringify([view, held]);
    if (text === this.told) return;
    const now = performance.now();
    if (now - this.saidAt >= EVERY) {
      this.saidAt = now;
      live.sendView(view, false);
    }
    this.timer = setTimeout(() => {
      this.told = text;
      live.sendView(view, true);
    }, REST);
  }
}
