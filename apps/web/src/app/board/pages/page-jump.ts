import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { ChevronDown, ChevronUp, FilePlus } from 'lucide';
import { FormsModule } from '@angular/forms';
import { InputNumber } from 'primeng/inputnumber';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import { Shortcuts } from '../shortcuts/shortcuts';

/** Which page is in view, of how many, and the way to another: the one before, the next, one by its number, a new one. */
@Component({
  selector: 'cua-page-jump',
  imports: [FormsModule, Icon, InputNumber, Tip],
  template: `
    <button
      type="button"
      aria-label="Previous page"
      [cuaTip]="shortcuts.tip('Previous page', 'page-before')"
      [disabled]="place() <= 1"
      (click)="turn(-1)"
    >
      <cua-icon [of]="icons.ChevronUp" [size]="20" />
    </button>
    <p-inputnumber
      #field
      ariaLabel="Go to page number"
      [min]="1"
      [useGrouping]="false"
      [ngModel]="number()"
      (keydown.enter)="jump(field)"
      (onBlur)="jump(field)"
    />
    <span class="of">
      of {{ shownCount() }}
      @if (pages().length > shownCount()) {
        <span [cuaTip]="pages().length - shownCount() + ' hidden'"
          >(+{{ pages().length - shownCount() }})</span
        >
      }
    </span>
    <button
      type="button"
      aria-label="Next page"
      [cuaTip]="shortcuts.tip('Next page', 'page-after')"
      [disabled]="place() >= pages().length"
      (click)="turn(1)"
    >
      <cua-icon [of]="icons.ChevronDown" [size]="20" />
    </button>
    @if (mayAdd()) {
      <button
        type="button"
        aria-label="Empty page"
        cuaTip="Empty page after this one"
        (click)="added.emit()"
      >
        <cua-icon [of]="icons.FilePlus" [size]="20" />
      </button>
    }
  `,
  styleUrl: './page-jump.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageJump {
  readonly board = input.required<Board>();
  /** The page in view. */
  readonly current = input<Id | null>(null);
  readonly mayAdd = input(false);
  readonly chosen = output<Id>();
  /** A page is wished for after the one in view. */
  readonly added = output();

  protected readonly shortcuts = inject(Shortcuts);
  protected readonly icons = { ChevronDown, ChevronUp, FilePlus };
  protected readonly pages = computed(() => pagesInOrder(this.board()));
  /** As the class counts them; those hidden in brackets. */
  private readonly numbers = computed(() => pageNumbers(this.board()));
  protected readonly shownCount = computed(
    () => this.pages().filter(({ hidden }) => !hidden).length,
  );
  /** Of the page in view, for the field in which another can be typed. */
  protected readonly number = computed(() => {
    const number = this.numbers().get(this.current() ?? '');
    return Number(number?.replace(/[()]/g, '') ?? 1);
  });
  protected readonly place = computed(
    () => this.pages().findIndex(({ id }) => id === this.current()) + 1,
  );

  protected jump(field: InputNumber): void {
    const wanted = String(field.value);
    if (wanted === String(this.number())) return;
    const is = (label: string) => this.pages().find(({ id }) => this.numbers().get(id) === label);
    const page = is(wanted) ?? is(`(${wanted})`);
    if (page) this.chosen.emit(page.id);
    else field.writeValue(this.number());
  }

  protected turn(by: 1 | -1): void {
    const page = this.pages()[this.place() - 1 + by];
    if (page) this.chosen.emit(page.id);
  }
}
