import { NgTemplateOutlet } from '@angular/common';
import {
  afterNextRender,
  booleanAttribute,
  ChangeDetectionStrategy,
  Component,
  contentChild,
  DestroyRef,
  Directive,
  ElementRef,
  inject,
  input,
  output,
  TemplateRef,
} from '@angular/core';
import { DialogModule } from 'primeng/dialog';
import { DomHandler } from 'primeng/dom';

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

const CONTENT = '.p-dialog-content';
/** Where a dialog's focus may begin, in this order: what is asked, then its answers, then its title's button. */
const PARTS = [CONTENT, '.p-dialog-footer', '.p-dialog-header'];

/**
 * A dialog over the screen. It is there as long as it is in the template, and asks to be taken away by `closed`.
 * It takes the focus as it is drawn, not after it has come in as PrimeNG's does: anyone who types or presses in it by
 * then would be taken back to its first field.
 */
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
      [focusOnShow]="false"
      (onShow)="takeFocus()"
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
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    afterNextRender(() => this.takeFocus([CONTENT]));
  }

  /** Unless the focus is in the dialog. What is asked may come later than the dialog. */
  protected takeFocus(parts: readonly string[] = PARTS): void {
    const dialog = this.host.querySelector('[role="dialog"]');
    if (!dialog || dialog.contains(document.activeElement)) return;
    for (const name of parts) {
      const part = dialog.querySelector(name);
      const [first] = part ? (DomHandler.getFocusableElements(part) as HTMLElement[]) : [];
      if (first) return first.focus();
    }
  }
}

/** What a component with a dialog imports. */
export const DIALOG = [Dialog, DialogFooter] as const;
