import { effect, untracked } from '@angular/core';
import type { Signal } from '@angular/core';
import type { Lamp } from '@cuaderno/core/features';
import type { StageView } from '../stage/stage-view';

/** The stage, as far as it can show a place. */
export interface ViewTarget {
  readonly moved: Signal<number>;
  readonly view: Pick<StageView, 'sees' | 'reveal'>;
}

/**
 * On the page where the lamp is lit, all else is dim: a window that shows another part of it would be dark, so
 * it goes there, no further than it must. Anyone who moves on afterwards is left alone until the lamp moves. One object, made where
 * effects can be.
 *
 * @param lamp as it is shown; `null` where none is, or where this window goes nowhere by itself
 */
export class LampFollower {
  /** The lamp to which this window went, as text: it is told anew with every arrow. */
  private shown: string | null = null;

  constructor(lamp: () => Lamp | null, stage: () => ViewTarget) {
    effect(() => {
      const lit = lamp();
      if (!lit) this.shown = null;
      if (!lit || JSON.stringify(lit) === this.shown) return;
      const where = stage();
      // Who is elsewhere, or came this moment, is at that page after one of the next moves.
      where.moved();
      const middle = { x: lit.x + lit.width / 2, y: lit.y + lit.height / 2 };
      untracked(() => {
        if (!where.view.sees(lit.page)) return;
        this.shown = JSON.stringify(lit);
        where.view.reveal(lit.page, middle);
      });
    });
  }
}
