import { DestroyRef, Directive, inject } from '@angular/core';
import { DialogModule } from 'primeng/dialog';

/**
 * Gives the focus back to where it was before a dialog or panel came, when that goes (WAI-ARIA practices, dialog
 * pattern).
 * Where it was is gone, or somebody has the focus already, it stays as it is.
 */
@Directive({ selector: 'p-dialog, [cuaFocusBack]' })
export class FocusBack {
  constructor() {
    const before = document.activeElement;
    inject(DestroyRef).onDestroy(() =>
      // What the dialog did is drawn first.
      requestAnimationFrame(() => {
        const isFree = document.activeElement === null || document.activeElement === document.body;
        if (isFree && before instanceof HTMLElement && before.isConnected)
          before.focus({ preventScroll: true });
      }),
    );
  }
}

/** A dialog over the screen, `p-dialog`: to be imported for PrimeNG's module alone. It lies in an `@if`. */
export const DIALOG = [DialogModule, FocusBack] as const;
