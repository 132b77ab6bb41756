import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  Injector,
  input,
  model,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  CdkFixedSizeVirtualScroll,
  CdkVirtualForOf,
  CdkVirtualScrollViewport,
} from '@angular/cdk/scrolling';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { CdkDrag, CdkDropList } from '@angular/cdk/drag-drop';
import type { CdkDragDrop } from '@angular/cdk/drag-drop';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { Ellipsis, EyeOff, Lock } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { Menu, MenuModule } from 'primeng/menu';
import { filter, take } from 'rxjs';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { Tip } from '../../ui/tip/tip';
import type { PaperSource } from '../drawing/paper-source';
import type { Author } from '@cuaderno/core/drawing';
import { PageThumb } from './page-thumb';

/** Height of one entry, in CSS px: all alike, so that a board of thousands of pages scrolls. */
const ENTRY = 128;
/** Room above each where some have headings. */
const HEADING = 26;

/** What can be done to a page, or beside it. */
export type PageWish =
  'add' | 'add before' | 'copy' | 'set up' | 'move' | 'hide' | 'show' | 'remove';

/** Pictures of all pages, to jump by; for a tutor, also to put in order. */
@Component({
  selector: 'cua-page-strip',
  imports: [
    Button,
    CdkDrag,
    CdkDropList,
    CdkFixedSizeVirtualScroll,
    CdkVirtualForOf,
    CdkVirtualScrollViewport,
    Icon,
    MenuModule,
    PageThumb,
    Tip,
  ],
  templateUrl: './page-strip.html',
  styleUrl: './page-strip.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageStrip {
  readonly board = input.required<Board>();
  readonly papers = input.required<PaperSource>();
  readonly current = input<Id | null>(null);
  /** Who is on which page just now. */
  readonly here = input<ReadonlyMap<Id, readonly Author[]>>(new Map());
  /** Headings above pages: what a group of them that begins there is called. */
  readonly groups = input<ReadonlyMap<Id, string>>(new Map());
  readonly mayEdit = input(false);
  /** Pages that something is to be done with; none means the one in view. */
  readonly picked = model<ReadonlySet<Id>>(new Set());
  readonly chosen = output<Id>();
  /** Something is to be done to the pages that are picked, or to the one in view. */
  readonly edited = output<PageWish>();
  /** A page is to go to place `to`, counted from 0 without it. */
  readonly moved = output<{ readonly page: Id; readonly to: number }>();

  protected readonly entry = computed(() => (this.groups().size > 0 ? ENTRY + HEADING : ENTRY));
  protected readonly icons = { Ellipsis, EyeOff, Lock };
  protected readonly pages = computed(() => pagesInOrder(this.board()));
  /** As the class counts them; those hidden in brackets. */
  protected readonly numbers = computed(() => pageNumbers(this.board()));
  protected readonly place = computed(
    () => this.pages().findIndex(({ id }) => id === this.current()) + 1,
  );
  /** Whether a touch picks pages in place of going to them. */
  protected readonly picking = signal(false);
  /** Where a range of picked pages begins. */
  private anchor: Id | null = null;
  protected readonly meant = computed(() => {
    const picked = this.picked();
    return this.pages().filter(({ id }) =>
      picked.size > 0 ? picked.has(id) : id === this.current(),
    );
  });
  /** Whether all that is meant is hidden. */
  protected readonly hidden = computed(
    () => this.meant().length > 0 && this.meant().every(({ hidden }) => hidden),
  );
  /** What can be done with the pages that are meant. */
  /** Whether pages may also be taken off the board: removed, or moved to another. */
  readonly mayRemove = input(true);
  protected readonly wishes = computed<MenuItem[]>(() => {
    const edit = (label: string, wish: PageWish, disabled = false): MenuItem => ({
      ...{ label, disabled },
      command: () => {
        // A dialog that opens by it gives the focus back to where the menu was opened.
        this.more()?.nativeElement.focus();
        this.edit(wish);
      },
    });
    const isAll = this.pages().length <= this.meant().length;
    return [
      edit('Copy', 'copy'),
      edit('Paper', 'set up'),
      edit('Hide page', 'hide', this.hidden()),
      ...(this.mayRemove() ? [edit('Move to board…', 'move', isAll)] : []),
      edit('New page before this one', 'add before'),
      ...(this.mayRemove() ? [edit('Remove', 'remove', isAll)] : []),
      { separator: true },
      {
        label: this.picking() ? 'Stop selecting' : 'Select pages',
        command: () => this.pickSeveral(),
      },
    ];
  });
  private readonly menu = viewChild(Menu);
  private readonly more = viewChild<ElementRef<HTMLElement>>('more');
  private readonly list = viewChild.required(CdkVirtualScrollViewport);
  private readonly box = viewChild.required('box', { read: ElementRef<HTMLElement> });

  constructor() {
    effect(() => {
      this.place();
      this.reveal();
    });
    // The page in view may be known before there is anything to scroll.
    const injector = inject(Injector);
    const laid = effect(() => {
      const list = this.list();
      laid.destroy();
      const filled = list.renderedRangeStream.pipe(
        filter(({ end }) => end > 0),
        take(1),
        takeUntilDestroyed(injector.get(DestroyRef)),
      );
      filled.subscribe(() => afterNextRender(() => this.reveal(), { injector }));
    });
  }

  /** Scrolls to the page in view, if it isn't in sight. */
  private reveal(): void {
    const index = this.place() - 1;
    if (index < 0) return;
    const list = this.list();
    const height = (this.box().nativeElement as HTMLElement).clientHeight;
    const top = list.measureScrollOffset('top');
    const entry = this.entry();
    if (index * entry < top || (index + 1) * entry > top + height)
      list.scrollToOffset(index * entry - height / 2 + entry / 2);
  }

  /** Ctrl adds one, Shift all up to here; with “Select pages” every touch adds one. */
  protected choose(event: MouseEvent, page: Id): void {
    const one = event.ctrlKey || event.metaKey || this.picking();
    if (!this.mayEdit() || (!one && !event.shiftKey)) {
      this.picked.set(new Set());
      this.anchor = page;
      this.chosen.emit(page);
      return;
    }
    const from = this.picked().size > 0 ? this.picked() : this.start();
    if (event.shiftKey) {
      const ids = this.pages().map(({ id }) => id);
      const ends = [ids.indexOf(this.anchor ?? page), ids.indexOf(page)].sort((a, b) => a - b);
      this.picked.set(new Set([...from, ...ids.slice(ends[0], ends[1]! + 1)]));
      return;
    }
    const picked = new Set(from);
    if (!picked.delete(page)) picked.add(page);
    this.anchor = page;
    this.picked.set(picked);
  }

  /** The menu of a picture: of those that are picked, where it is one of them. */
  protected ask(event: MouseEvent, page: Id): void {
    if (!this.mayEdit()) return;
    event.preventDefault();
    if (!this.picked().has(page)) {
      this.picked.set(new Set());
      this.anchor = page;
      this.chosen.emit(page);
    }
    this.menu()?.show(event);
  }

  protected pickSeveral(): void {
    this.picking.update((on) => !on);
    if (!this.picking()) this.picked.set(new Set());
  }

  protected stopPicking(): void {
    this.picking.set(false);
    this.picked.set(new Set());
  }

  /** The first page to be picked beside another is the one in view, but not with “Select pages”. */
  private start(): ReadonlySet<Id> {
    const current = this.current();
    this.anchor ??= current;
    return !this.picking() && current ? new Set([current]) : new Set();
  }

  protected whoIsOn(page: Id): string {
    const names = (this.here().get(page) ?? []).map(({ name }) => name);
    return names.length > 0 ? `. Here: ${names.join(', ')}` : '';
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
