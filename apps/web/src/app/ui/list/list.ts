import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';
// eslint-disable-next-line no-restricted-syntax -- here it is made what others import
import { Select } from 'primeng/select';
import { followField } from '../popup/follow-field';

/**
 * An open list of PrimeNG's stays with its field: where what is around the field moves, as when somebody comes, it moves
 * along and stays open. By itself PrimeNG closes it at each scroll, also at those that nobody made, and leaves it where
 * it was at all other moves.
 */
@Directive({ selector: 'p-select' })
export class ListByField {
  private readonly list = inject(Select);
  private readonly field = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private ended = (): void => undefined;

  constructor() {
    this.list.overlayOptions = {
      // One that is opened again while it goes out of sight would be closed when it has gone.
      motionOptions: { disabled: true },
      listener: (_event, options) =>
        options?.type !== 'scroll' && options?.type !== 'resize' && options?.valid === true,
    };
    this.list.onShow.subscribe(() => {
      this.ended();
      this.ended = followField(this.field, () => this.list.overlayViewChild?.alignOverlay());
    });
    this.list.onHide.subscribe(() => this.ended());
    inject(DestroyRef).onDestroy(() => this.ended());
  }
}

/** What a component with a list imports. */
export const LIST = [Select, ListByField] as const;
