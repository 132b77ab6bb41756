import { NgTemplateOutlet } from '@angular/common';
import {
  booleanAttribute,
  ChangeDetectionStrategy,
  Component,
  contentChild,
  DestroyRef,
  Directive,
  inject,
  input,
  output,
  TemplateRef,
} from '@angular/core';
import { DialogModule } from 'primeng/dialog';

/**
 * Gives the focus back to where it was before a dialog or panel came, when that goes (WAI-ARIA practices, dialog
 * pattern).
 * Where it was is gone, or somebody has the focus already, it stays as it is.
 */
@Directive({ selector: '[cuaFocusBack]' })
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

/** What can be answered: it stays below a dialog however long that is. On an `ng-template`. */
@Directive({ selector: '[cuaDialogFooter]' })
export class DialogFooter {
  readonly template = inject<TemplateRef<void>>(TemplateRef);
}

/** A dialog over the screen. It is there as long as it is in the template, and asks to be taken away by `closed`. */
@Component({
  selector: 'cua-dialog',
  imports: [DialogModule, NgTemplateOutlet],
  hostDirectives: [FocusBack],
  template: `
    <p-dialog
      closeAriaLabel="Close"
      [header]="header()"
      [visible]="true"
      [modal]="true"
      [draggable]="false"
      [resizable]="false"
      [closable]="closable()"
      (visibleChange)="closed.emit()"
    >
      <ng-content />
      @if (footer(); as footer) {
        <ng-template #footer>
          <ng-container [ngTemplateOutlet]="footer.template" />
        </ng-template>
      }
    </p-dialog>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Dialog {
  /** What is done in it, as a title. */
  readonly header = input.required<string>();
  /** Whether it can be left without an answer. */
  readonly closable = input(true, { transform: booleanAttribute });
  readonly closed = output();
  protected readonly footer = contentChild(DialogFooter);
}

/** What a component with a dialog imports. */
export const DIALOG = [Dialog, DialogFooter] as const;
