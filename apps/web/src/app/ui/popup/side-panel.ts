import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  input,
  output,
  viewChild,
} from '@angular/core';
import { X } from 'lucide';
import { Button } from '../button/button';
import { Icon } from '../icons/icon';

/**
 * A dialog at the side of the page. Everything else goes on being there to be touched: whatever a tutor is
 * looking up in it, pens are taken back in the same second.
 */
@Component({
  selector: 'cua-side-panel',
  imports: [Button, Icon],
  template: `
    <dialog
      #dialog
      [attr.aria-label]="header()"
      (close)="closed.emit()"
      (keydown.escape)="$event.stopPropagation(); dialog.close()"
    >
      <div class="head">
        <h2>{{ header() }}</h2>
        <button type="button" cuaButton="quiet" aria-label="Close" (click)="dialog.close()">
          <cua-icon [of]="icons.X" [size]="20" />
        </button>
      </div>
      <ng-content />
    </dialog>
  `,
  styles: `
    dialog {
      position: fixed;
      z-index: 30;
      inset: auto 12px 12px auto;
      width: min(25rem, calc(100vw - 24px));
      max-height: calc(100dvh - 96px);
      margin: 0;
      overflow: auto;
      padding: var(--space-8) var(--space-9) var(--space-9);
      border: 1px solid var(--line);
      border-radius: 14px;
      background: var(--raised);
      color: var(--ink);
      box-shadow: 0 6px 24px rgb(40 30 10 / 22%);
    }
    .head {
      display: flex;
      align-items: center;
      justify-content: space-between;
      margin-bottom: var(--space-4);
    }
    h2 {
      margin: 0;
      font-size: var(--size-xl);
    }
    .cua-button {
      width: var(--touch);
      padding: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SidePanel {
  readonly header = input.required<string>();
  readonly closed = output();
  protected readonly icons = { X };
  private readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');

  constructor() {
    afterNextRender(() => this.dialog().nativeElement.show());
  }
}
