import { signal } from '@angular/core';
import type { Lamp, Overlay, Place } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import { Subject } from 'rxjs';
import type { ServerHandlers, LessonFeature, Send } from '../feature';

const NOTHING: Overlay = { arrows: [], lamp: null };

/** Where somebody points just now; `null` where they no longer do. */
export interface Pointed {
  readonly by: Id;
  readonly at: Place | null;
}

/** The pointer, arrows left standing, and the lamp. */
export class PointingState implements LessonFeature<'pointing'> {
  /** Arrows and the lamp. */
  readonly shown = signal<Overlay>(NOTHING);
  readonly pointed = new Subject<Pointed>();

  readonly handlers: ServerHandlers<'pointing'> = {
    shown: ({ shown }) => this.shown.set(shown),
    point: ({ by, at }) => this.pointed.next({ by, at }),
  };

  constructor(private readonly send: Send) {}

  begin(): void {
    this.clear();
  }

  clear(): void {
    this.shown.set(NOTHING);
  }

  point(at: Place | null): void {
    this.send({ kind: 'point', at });
  }

  leaveArrow(at: Place | null): void {
    this.send({ kind: 'arrow', at });
  }

  clearArrows(): void {
    this.send({ kind: 'arrows.clear' });
  }

  /** @param final whether it stays so for now */
  light(lamp: Lamp | null, final: boolean): void {
    this.shown.update((shown) => ({ ...shown, lamp }));
    this.send({ kind: 'lamp', lamp, final });
  }
}
