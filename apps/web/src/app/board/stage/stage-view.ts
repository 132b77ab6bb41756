import type { Signal } from '@angular/core';
import type { Id } from '@cuaderno/core/id';
import type { Viewing } from './viewing';

/** What a stage shows of its board, as others see and move it. */
export interface StageView extends Pick<
  Viewing,
  | 'fitPage'
  | 'fitWidth'
  | 'follow'
  | 'goTo'
  | 'locate'
  | 'middle'
  | 'part'
  | 'reveal'
  | 'sees'
  | 'show'
  | 'turn'
  | 'zoomBy'
  | 'zoomTo'
> {
  /** CSS px a point. */
  readonly zoom: Signal<number>;
  /** The page in view. */
  readonly page: Signal<Id | null>;
}
