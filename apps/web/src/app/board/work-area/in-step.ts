import { effect, untracked } from '@angular/core';
import type { Signal } from '@angular/core';
import type { Machine, View, WindowSize } from '@cuaderno/core';
import type { BoardSession } from '../../live/board-session';

/** How often a window that leads says what it shows, in ms, and after how long it rests. */
const EVERY = 33;
const REST = 180;
/** After how long at rest a student's window says what it shows, in ms. */
const TELL = 500;

/** The stage, as far as it leads or is led. */
export interface Led {
  readonly part: View | null;
  readonly moved: Signal<number>;
  size(): WindowSize;
  follow(view: View | null): void;
  show(view: View): void;
}

/**
 * Being in step: the window that leads says what it shows, the others show what they are told. A student's
 * window also tells its tutor where it is.
 */
export class InStep {
  private saidAt = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private told: string | null = null;
  private telling: ReturnType<typeof setTimeout> | undefined;
  private tells: string | null = null;

  /**
   * To be made where effects can be.
   * @param leads whether this window leads
   * @param around whether it looks around by itself, though the one who leads is followed: a tutor may
   */
  constructor(
    session: () => BoardSession,
    stage: () => Led,
    leads: () => boolean,
    around: () => boolean,
  ) {
    effect((onCleanup) => {
      const { features } = session();
      const where = stage();
      const led = features.inStep.on() && !leads() && !around() ? features.inStep.led() : null;
      untracked(() => where.follow(led));
      const gathered = features.inStep.gathered.subscribe((view) => where.show(view));
      onCleanup(() => gathered.unsubscribe());
    });
    effect(() => {
      const live = session();
      if (!leads() || !live.features.inStep.on() || live.line() !== 'live') {
        clearTimeout(this.timer);
        this.told = null;
        return;
      }
      stage().moved();
      untracked(() => this.tellView(live, stage().part));
    });
    effect(() => {
      const live = session();
      const where = stage();
      where.moved();
      if (live.role() !== 'student' || live.line() !== 'live') {
        this.tells = null;
        return;
      }
      untracked(() => this.tell(live, where));
    });
  }

  /** At most so many times a second while it moves, and once more where it stays. */
  private tellView(live: BoardSession, view: View | null): void {
    clearTimeout(this.timer);
    // What is drawn counts as a move of the stage; only where it looks is told.
    if (!view) return;
    // A page that was hidden leads nowhere until it is shown: then all are brought to it.
    const hidden = live.board().pages.get(view.page)?.hidden ?? false;
    const text = JSON.stringify([view, hidden]);
    if (text === this.told) return;
    const now = performance.now();
    if (now - this.saidAt >= EVERY) {
      this.saidAt = now;
      live.features.inStep.sendView(view, false);
    }
    this.timer = setTimeout(() => {
      this.told = text;
      live.features.inStep.sendView(view, true);
    }, REST);
  }

  private tell(live: BoardSession, stage: Led): void {
    clearTimeout(this.telling);
    const view = stage.part;
    const text = JSON.stringify([view, stage.size()]);
    if (!view || text === this.tells) return;
    this.telling = setTimeout(() => {
      this.tells = text;
      live.features.presence.showWindow(machine(), stage.size(), view);
    }, TELL);
  }
}

/** Side of a screen below which it is a phone's, in CSS px. */
const PHONE = 600;

/** What this window is on, as far as a browser tells: by its pointer and its screen. */
function machine(): Machine {
  if (!matchMedia('(pointer: coarse)').matches) return 'computer';
  return Math.min(screen.width, screen.height) < PHONE ? 'phone' : 'tablet';
}
