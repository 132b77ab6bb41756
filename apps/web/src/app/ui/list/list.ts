import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';
// eslint-disable-next-line no-restricted-syntax -- here it is made what others import
import { Select } from 'primeng/select';

/**
 * An open list of PrimeNG's stays with its field: where what is around the field moves, as when somebody comes, it moves
 * along and stays open. By itself PrimeNG closes it at each scroll, also at those that nobody made, and leaves it where
 * it was at all other moves.
 */
@Directive({ selector: 'p-select' })
export class ListByField {
  private readonly list = inject(Select);
  private readonly field = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private frame = 0;

  constructor() {
    this.list.overlayOptions = {
      // One that is opened again while it goes out of sight would be closed when it has gone.
      motionOptions: { disabled: true },
      listener: (_event, options) =>
        options?.type !== 'scroll' && options?.type !== 'resize' && options?.valid === true,
    };
    this.list.onShow.subscribe(() => this.follow(this.place()));
    this.list.onHide.subscribe(() => cancelAnimationFrame(this.frame));
    inject(DestroyRef).onDestroy(() => cancelAnimationFrame(this.frame));
  }

  private place(): DOMRect {
    return this.field.getBoundingClientRect();
  }

  /** Nothing tells of a move; what is asked in each frame costs next to nothing while one list is open. */
  private follow(was: DOMRect): void {
    cancelAnimationFrame(this.frame);
    this.frame = requestAnimationFrame(() => {
      const place = this.place();
      const isMoved = place.x !== was.x || place.y !== was.y || place.width !== was.width;
      if (isMoved) this.list.overlayViewChild?.alignOverlay();
      this.follow(place);
    });
  }
}

/** What a component with a list imports. */
export const LIST = [Select, ListByField] as const;
