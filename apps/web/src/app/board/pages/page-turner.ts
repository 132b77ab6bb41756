import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { ChevronDown, ChevronUp, FilePlus } from 'lucide';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { Shortcuts } from '../shortcuts/shortcuts';

/** Turns pages, for who may; adds one after this, for who may. */
@Component({
  selector: 'cua-page-turner',
  imports: [Icon, Tip],
  template: `
    @if (turns()) {
      <button
        type="button"
        aria-label="Previous page"
        [cuaTip]="shortcuts.tip('Previous page', 'page-before')"
        [disabled]="at() <= 0"
        (click)="go(-1)"
      >
        <cua-icon [of]="icons.ChevronUp" [size]="20" />
      </button>
      <span class="place" aria-live="polite">{{ at() + 1 }} / {{ pages().length }}</span>
      <button
        type="button"
        aria-label="Next page"
        [cuaTip]="shortcuts.tip('Next page', 'page-after')"
        [disabled]="at() >= pages().length - 1"
        (click)="go(1)"
      >
        <cua-icon [of]="icons.ChevronDown" [size]="20" />
      </button>
    }
    @if (adds()) {
      <button type="button" aria-label="Add a page" cuaTip="Add a page here" (click)="added.emit()">
        <cua-icon [of]="icons.FilePlus" [size]="20" />
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
    }
    button {
      display: grid;
      place-items: center;
      width: var(--touch);
      min-height: var(--touch);
      padding: 0;
      border: 0;
      border-radius: var(--round);
      background: none;
      color: inherit;
      cursor: pointer;
    }
    button:disabled {
      opacity: 0.35;
    }
    .place {
      min-width: 36px;
      text-align: center;
      font-variant-numeric: tabular-nums;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageTurner {
  readonly board = input.required<Board>();
  readonly page = input<Id | null>(null);
  readonly turns = input(true);
  readonly adds = input(false);
  readonly turned = output<Id>();
  readonly added = output();

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { ChevronDown, ChevronUp, FilePlus };
  protected readonly pages = computed(() => pagesInOrder(this.board()));
  protected readonly at = computed(() => this.pages().findIndex(({ id }) => id === this.page()));

  protected go(by: 1 | -1): void {
    const page = this.pages()[this.at() + by];
    if (page) this.turned.emit(page.id);
  }
}
