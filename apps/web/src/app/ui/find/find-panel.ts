import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import { typedOn, WordIndex } from '@cuaderno/core/find';
import type { Board, Page, PdfPaper } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { X } from 'lucide';
import { Button } from '../button/button';
import { Icon } from '../icons/icon';

/** Where the words of imported pages come from. */
export interface PrintedWords {
  words(paper: PdfPaper): Promise<string>;
}

/** Finds words on all pages of a board: typed ones, and those in imported PDFs. */
@Component({
  selector: 'cua-find-panel',
  imports: [Button, Icon],
  templateUrl: './find-panel.html',
  styleUrl: './find-panel.scss',
  host: { '(keydown.escape)': 'closed.emit()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindPanel {
  readonly board = input.required<Board>();
  readonly papers = input.required<PrintedWords>();
  readonly chosen = output<Id>();
  readonly closed = output();

  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly index = new WordIndex();
  /** Words of imported pages that have been read, by file and number. */
  private readonly printed = new Map<string, string>();
  /** Counts what has been read, so that what is found is looked up anew. */
  private readonly read = signal(0);
  private reading = false;
  protected readonly icons = { X };
  protected readonly query = signal('');
  protected readonly pages = computed(() => pagesInOrder(this.board()));
  protected readonly numbers = computed(() => pageNumbers(this.board()));
  /** Imported pages whose words are still to be read. */
  protected readonly unread = computed(() => {
    this.read();
    return this.pages().filter(
      ({ paper }) => paper.kind === 'pdf' && !this.printed.has(keyOf(paper)),
    );
  });
  /** What pages say is gone through when that has changed, and not with every key. */
  private readonly order = computed(() => {
    this.read();
    for (const page of this.pages())
      this.index.set({ page: page.id, text: `${typedOn(page)}\n${this.printOf(page)}` });
    return this.pages().map(({ id }) => id);
  });
  protected readonly hits = computed(() => this.index.find(this.query(), this.order()));

  constructor() {
    afterNextRender(() => this.field().nativeElement.focus());
    effect(() => {
      if (this.unread().length > 0) untracked(() => void this.readOn());
    });
  }

  private printOf({ paper }: Page): string {
    return paper.kind === 'pdf' ? (this.printed.get(keyOf(paper)) ?? '') : '';
  }

  /** Reads one imported page after the other; what is read can be found at once. */
  private async readOn(): Promise<void> {
    if (this.reading) return;
    this.reading = true;
    for (let next = this.unread()[0]; next; next = this.unread()[0]) {
      const paper = next.paper as PdfPaper;
      // A page whose words can't be read has none to be found.
      this.printed.set(
        keyOf(paper),
        await this.papers()
          .words(paper)
          .catch(() => ''),
      );
      this.read.update((n) => n + 1);
    }
    this.reading = false;
  }
}

function keyOf({ file, number }: PdfPaper): string {
  return `${file} ${number}`;
}
