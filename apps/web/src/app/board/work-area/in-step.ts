import { effect, untracked } from '@angular/core';
import type { Signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Machine, View, WindowSize } from '@cuaderno/core/features';
import {
  distinctUntilChanged,
  EMPTY,
  filter,
  map,
  Subject,
  switchMap,
  throttleTime,
  timer,
} from 'rxjs';
import type { Observable } from 'rxjs';
import type { BoardSession } from '../../live/board-session';
import type { StageView } from '../stage/stage-view';

/** How often a window that leads says what it shows, in ms, and after how long it rests. */
const EVERY = 33;
const REST = 180;
/** After how long at rest a student's window says what it shows, in ms. */
const TELL = 500;

/** The stage, as far as it leads or is led. */
export interface Led {
  readonly moved: Signal<number>;
  readonly view: Pick<StageView, 'part' | 'follow' | 'show'>;
  size(): WindowSize;
}

/** What a window shows at a moment, and all that makes it another in one text. */
interface Shown {
  readonly live: BoardSession;
  readonly view: View;
  readonly size: WindowSize;
  readonly text: string;
}

/**
 * Being in step: the window that leads says what it shows, the others show what they are told. A student's
 * window also tells its tutor where it is.
 */
export class InStep {
  /** What this window shows while it leads, and while it is a student's; `null` while it isn't so. */
  private readonly leading = new Subject<Shown | null>();
  private readonly looking = new Subject<Shown | null>();

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
      const { features, id } = session();
      const where = stage();
      const led = features.inStep.on() && !leads() && !around() ? features.inStep.led() : null;
      // Where the one who leads is on another board, the screen goes there.
      untracked(() => where.view.follow(led?.board === id() ? led.view : null));
      const gathered = features.inStep.gathered.subscribe(({ board, view }) => {
        if (board === id()) where.view.show(view);
      });
      onCleanup(() => gathered.unsubscribe());
    });
    effect(() => {
      const live = session();
      const where = stage();
      const says = leads() && live.features.inStep.on() && live.line() === 'live';
      if (says) where.moved();
      untracked(() => this.leading.next(says ? shownIn(live, where) : null));
    });
    effect(() => {
      const live = session();
      const where = stage();
      const says = live.role() !== 'tutor' && live.line() === 'live';
      if (says) where.moved();
      untracked(() => this.looking.next(says ? shownIn(live, where) : null));
    });

    const leading = this.leading.pipe(distinctUntilChanged(isSame), takeUntilDestroyed());
    leading
      .pipe(
        filter((shown) => shown !== null),
        throttleTime(EVERY),
      )
      .subscribe(({ live, view }) => live.features.inStep.sendView(live.board().id, view, false));
    leading
      .pipe(switchMap(atRest(REST)))
      .subscribe(({ live, view }) => live.features.inStep.sendView(live.board().id, view, true));
    this.looking
      .pipe(distinctUntilChanged(isSame), switchMap(atRest(TELL)), takeUntilDestroyed())
      .subscribe(({ live, view, size }) =>
        live.features.presence.showWindow(live.board().id, machine(), size, view),
      );
  }
}

/** What is drawn counts as a move of the stage; where it looks is all that makes what it shows another. */
function shownIn(live: BoardSession, stage: Led): Shown | null {
  const view = stage.view.part;
  if (!view) return null;
  const size = stage.size();
  // A page that was hidden leads nowhere until it is shown: then all are brought to it.
  const hidden = live.board().pages.get(view.page)?.hidden ?? false;
  // So does a board that the class hasn't, until it has it.
  const isShown = live.features.lessonBoards.isShown(live.board().id);
  return { live, view, size, text: JSON.stringify([view, size, hidden, isShown]) };
}

function isSame(one: Shown | null, other: Shown | null): boolean {
  return one?.text === other?.text && one?.live === other?.live;
}

/** What is still so after so many ms. */
function atRest(ms: number): (shown: Shown | null) => Observable<Shown> {
  return (shown) => (shown ? timer(ms).pipe(map(() => shown)) : EMPTY);
}

/** Side of a screen below which it is a phone's, in CSS px. */
const PHONE = 600;

/** What this window is on, as far as a browser tells: by its pointer and its screen. */
function machine(): Machine {
  if (!matchMedia('(pointer: coarse)').matches) return 'computer';
  return Math.min(screen.width, screen.height) < PHONE ? 'phone' : 'tablet';
}
