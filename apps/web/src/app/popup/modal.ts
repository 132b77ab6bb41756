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
import { Icon } from '../icons/icon';

/** A question that is answered before anything else: the browser’s own dialog, for tutors and students. */
@Component({
  selector: 'cua-modal',
  imports: [Icon],
  template: `
    <dialog #dialog [attr.aria-label]="header()" (close)="closed.emit()">
      <div class="head">
        <h2>{{ header() }}</h2>
        <button type="button" class="act quiet" aria-label="Close" (click)="dialog.close()">
          <cua-icon [of]="icons.X" [size]="20" />
        </button>
      </div>
      <ng-content />
    </dialog>
  `,
  styles: `
    dialog {
      width: min(32rem, calc(100vw - 24px));
      padding: 16px 20px 20px;
      border: 1px solid var(--line);
      border-radius: 14px;
      background: var(--raised);
      color: var(--ink);
      box-shadow: 0 6px 24px rgb(40 30 10 / 22%);
    }
    dialog::backdrop {
      background: rgb(20 18 12 / 40%);
    }
    .head {
      display: flex;
      align-items: center;
      justify-content: space-between;
      margin-bottom: 8px;
    }
    h2 {
      margin: 0;
      font-size: 1.2rem;
    }
    .act {
      width: var(--touch);
      padding: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Modal {
  readonly header = input.required<string>();
  readonly closed = output();
  protected readonly icons = { X };
  private readonly dialog = viewChild.required<ElementRef<HTMLDialogElement>>('dialog');

  constructor() {
    afterNextRender(() => this.dialog().nativeElement.showModal());
  }
}
