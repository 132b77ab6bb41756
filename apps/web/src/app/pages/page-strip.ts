import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  input,
  output,
  viewChild,
} from '@angular/core';
import {
  CdkFixedSizeVirtualScroll,
  CdkVirtualForOf,
  CdkVirtualScrollViewport,
} from '@angular/cdk/scrolling';
import { pagesInOrder } from '@cuaderno/core';
import type { Board, Id } from '@cuaderno/core';
import { FilePlus } from 'lucide';
import { Icon } from '../icons/icon';
import type { PaperSource } from '../stage/paper-source';
import { PageThumb } from './page-thumb';

/** Height of one entry, in CSS px: all alike, so that a board of thousands of pages scrolls. */
const ENTRY = 172;

/** Pictures of all pages, to jump by. */
@Component({
  selector: 'cua-page-strip',
  imports: [CdkFixedSizeVirtualScroll, CdkVirtualForOf, CdkVirtualScrollViewport, Icon, PageThumb],
  templateUrl: './page-strip.html',
  styleUrl: './page-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageStrip {
  readonly board = input.required<Board>();
  readonly papers = input.required<PaperSource>();
  readonly current = input<Id | null>(null);
  readonly mayAdd = input(false);
  readonly chosen = output<Id>();
  readonly added = output();

  protected readonly entry = ENTRY;
  protected readonly icons = { FilePlus };
  protected readonly pages = computed(() => pagesInOrder(this.board()));
  protected readonly place = computed(
    () => this.pages().findIndex(({ id }) => id === this.current()) + 1,
  );
  private readonly list = viewChild.required(CdkVirtualScrollViewport);
  private readonly box = viewChild.required('box', { read: ElementRef<HTMLElement> });

  constructor() {
    effect(() => {
      const index = this.place() - 1;
      if (index < 0) return;
      const list = this.list();
      const height = (this.box().nativeElement as HTMLElement).clientHeight;
      const top = list.measureScrollOffset('top');
      if (index * ENTRY < top || (index + 1) * ENTRY > top + height)
        list.scrollToOffset(index * ENTRY - height / 2 + ENTRY / 2);
    });
  }

  protected jump(field: HTMLInputElement): void {
    const page = this.pages()[Number(field.value) - 1];
    if (page) this.chosen.emit(page.id);
    else field.value = String(this.place());
  }

  protected byId(_index: number, page: { id: Id }): Id {
    return page.id;
  }
}
