import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { ChevronLeft, ChevronRight, ZoomIn, ZoomOut } from 'lucide';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { PageView } from './page-view';
import type { ReadFolder, ReadSheet } from './shapes';

/** A page is made larger in such steps, up to so many times the room there is. */
const STEP = 0.5;
const LARGEST = 3;
/** How wide a page is at most before it is made larger, in CSS px: its picture has no more to show. */
const WIDEST = 1100;

/** Where a student looks at what the tutor shares: a list, and one page at a time. */
@Component({
  selector: 'cua-reading-room',
  imports: [Button, Icon, PageView],
  templateUrl: './reading-room.html',
  styleUrl: './reading-room.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadingRoom {
  readonly folders = input.required<readonly ReadFolder[]>();
  /** What was looked at isn't there any more. */
  readonly lost = output();
  protected readonly icons = { ChevronLeft, ChevronRight, ZoomIn, ZoomOut };
  protected readonly largest = LARGEST;
  protected readonly widest = WIDEST;
  /** How wide a page is, against the room there is. */
  protected readonly size = signal(1);

  private readonly sheets = computed(() => this.folders().flatMap(({ sheets }) => sheets));
  /** What is looked at: the first, until another is chosen; gone when it is taken back. */
  protected readonly sheet = linkedSignal<readonly ReadSheet[], ReadSheet | null>({
    source: this.sheets,
    computation: (sheets, before) =>
      sheets.find(({ id }) => id === before?.value?.id) ?? sheets[0] ?? null,
  });
  protected readonly page = linkedSignal({
    source: () => this.sheet()?.id,
    computation: () => 1,
  });
  protected readonly pages = computed(() => this.sheet()?.pages ?? 1);

  protected grow(by: number): void {
    this.size.update((size) => Math.min(LARGEST, Math.max(1, size + by * STEP)));
  }

  protected turn(by: number): void {
    this.page.update((page) => Math.min(this.pages(), Math.max(1, page + by)));
  }
}
