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
import { CdkDrag, CdkDropList } from '@angular/cdk/drag-drop';
import type { CdkDragDrop } from '@angular/cdk/drag-drop';
import { pagesInOrder } from '@cuaderno/core';
import type { Board, Id } from '@cuaderno/core';
import { CopyPlus, FilePlus, FileX2, NotebookPen } from 'lucide';
import { Icon } from '../icons/icon';
import type { PaperSource } from '../stage/paper-source';
import { PageThumb } from './page-thumb';

/** Height of one entry, in CSS px: all alike, so that a board of thousands of pages scrolls. */
const ENTRY = 172;

/** What can be done to a page, or beside it. */
export type PageWish = 'add' | 'copy' | 'dress' | 'remove';

/** Pictures of all pages, to jump by; for a tutor, also to put in order. */
@Component({
  selector: 'cua-page-strip',
  imports: [
    CdkDrag,
    CdkDropList,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    Icon,
    PageThumb,
  ],
  templateUrl: './page-strip.html',
  styleUrl: './page-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageStrip {
  readonly board = input.required<Board>();
  readonly papers = input.required<PaperSource>();
  readonly current = input<Id | null>(null);
  readonly mayEdit = input(false);
  readonly chosen = output<Id>();
  /** Something is to be done to the page in view. */
  readonly edited = output<PageWish>();
  /** A page is to go to place `to`, counted from 0 without it. */
  readonly moved = output<{ readonly page: Id; readonly to: number }>();

  protected readonly entry = ENTRY;
  protected readonly icons = { CopyPlus, FilePlus, FileX2, NotebookPen };
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

  protected edit(wish: PageWish): void {
    this.edited.emit(wish);
  }

  protected dropped({ item, currentIndex }: CdkDragDrop<unknown, unknown, Id>): void {
    // Only what is in view is there to be counted.
    this.moved.emit({ page: item.data, to: this.list().getRenderedRange().start + currentIndex });
  }

  protected nudge(event: Event, page: Id, to: number): void {
    event.preventDefault();
    if (this.mayEdit() && to >= 0) this.moved.emit({ page, to });
  }

  protected byId(_index: number, page: { id: Id }): Id {
    return page.id;
  }
}
