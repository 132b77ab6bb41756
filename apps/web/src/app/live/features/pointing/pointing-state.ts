import { signal } from '@angular/core';
import type { Lamp, Overlay, Place } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Subject } from 'rxjs';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

const NOTHING: Overlay = { arrows: [], lamp: null };

/** Where somebody points just now; `null` where they no longer do. */
export interface Pointed {
  readonly by: Id;
  readonly board: Id;
  readonly at: Place | null;
}

/** The pointer, arrows left standing, and the lamp. */
export class PointingState implements LessonFeature<'pointing'> {
  /** Arrows and the lamp. */
  readonly shown = signal<Overlay>(NOTHING);
  readonly pointed = new Subject<Pointed>();

  readonly handlers: ServerHandlers<'pointing'> = {
    shown: ({ shown }) => this.shown.set(shown),
    point: ({ by, board, at }) => this.pointed.next({ by, board, at }),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    this.clear();
  }

  clear(): void {
    this.shown.set(NOTHING);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  /** What is shown on the pages of one board. */
  shownOn(board: Id): Overlay {
    const { arrows, lamp } = this.shown();
    return {
      arrows: arrows.filter((arrow) => arrow.board === board),
      lamp: lamp?.board === board ? lamp : null,
    };
  }

  point(board: Id, at: Place | null): void {
    this.send({ kind: 'point', board, at });
  }

  leaveArrow(board: Id, at: Place | null): void {
    this.send({ kind: 'arrow', board, at });
  }

  clearArrows(): void {
    this.send({ kind: 'arrows.clear' });
  }

  /** @param final whether it stays so for now */
  light(board: Id, lamp: Lamp | null, final: boolean): void {
    this.shown.update((shown) => ({ ...shown, lamp: lamp && { ...lamp, board } }));
    this.send({ kind: 'lamp', board, lamp, final });
  }
}
