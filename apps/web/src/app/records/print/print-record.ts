import { DomPortal, DomPortalOutlet } from '@angular/cdk/portal';
import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { newestOf } from '@cuaderno/core/notes';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import type { Board } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { firstValueFrom } from 'rxjs';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import { RecordsApi } from '../../api/records-api';
import type { Attendance, RecordInfo } from '../../api/shapes';
import type { PaperSource } from '../../board/drawing/paper-source';
import { pagePng } from '../../board/page-files/page-image';
import { ROLE_WORDS } from '../../live/role-words';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { formatDate, formatLength, formatSpan } from '../../ui/time/format-time';

/** A page as it is printed. */
interface PrintedPage {
  readonly id: Id;
  readonly number: string;
  /** What the board is called where its pages begin, if there are several. */
  readonly heading: string;
  readonly src: string;
}

/**
 * Prints a record: what was done and who was there, then each page on a sheet of its own. Pages are drawn first, as sharp as
 * paper needs them; that can be stopped. Then the browser's own dialog comes.
 */
@Component({
  selector: 'cua-print-record',
  imports: [Button, DIALOG, ProblemMessage],
  templateUrl: './print-record.html',
  styleUrl: './print-record.scss',
  // What is printed stands beside the application while it is printed: see `print`.
  encapsulation: ViewEncapsulation.None,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PrintRecord {
  readonly info = input.required<RecordInfo>();
  readonly board = input.required<Board>();
  readonly people = input.required<readonly (Attendance & { readonly label: string })[]>();
  readonly papers = input.required<PaperSource>();
  /** Where the pages of each board begin, where it was on several. */
  readonly groups = input<ReadonlyMap<Id, string>>(new Map());
  readonly closed = output();

  private readonly recordsApi = inject(RecordsApi);
  private readonly sheets = viewChild.required<ElementRef<HTMLElement>>('sheets');
  private readonly abort = new AbortController();
  protected readonly pages = signal<readonly PrintedPage[]>([]);
  protected readonly notes = signal<readonly { label: string; text: string }[]>([]);
  protected readonly problem = signal<ProblemDetails | null>(null);
  protected readonly count = computed(() => pagesInOrder(this.board()).length);
  protected readonly say = { date: formatDate, span: formatSpan };
  protected readonly who = computed(() =>
    this.people().map(({ id, label, role, spans }) => ({
      ...{ id, label, role: ROLE_WORDS[role] },
      times: spans.map(({ from, to }) => formatSpan(from, to)).join(', '),
      total: formatLength(spans.reduce((sum, { from, to }) => sum + to - from, 0)),
    })),
  );

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.abort.abort();
      for (const { src } of this.pages()) URL.revokeObjectURL(src);
    });
    // Once its inputs are there.
    queueMicrotask(() => void this.prepare());
  }

  protected stop(): void {
    this.abort.abort();
    this.closed.emit();
  }

  private async prepare(): Promise<void> {
    const { signal } = this.abort;
    try {
      await this.loadNotes();
      const [board, groups] = [this.board(), this.groups()];
      const numbers = pageNumbers(board);
      for (const page of pagesInOrder(board)) {
        const png = await pagePng(page, this.papers(), { ink: true, signal });
        signal.throwIfAborted();
        const one: PrintedPage = {
          ...{
            id: page.id,
            number: numbers.get(page.id) ?? '',
            heading: groups.get(page.id) ?? '',
          },
          src: URL.createObjectURL(png),
        };
        this.pages.update((all) => [...all, one]);
      }
      await this.print(signal);
      // Stopped meanwhile, it is closed already.
      if (!signal.aborted) this.closed.emit();
    } catch (error) {
      if (!signal.aborted) this.problem.set(problemOf(error));
    }
  }

  private async loadNotes(): Promise<void> {
    const { notes } = await firstValueFrom(this.recordsApi.listNotes(this.info().lesson));
    const newest = (kind: 'summary' | 'until'): string =>
      newestOf(notes.filter((note) => note.kind === kind))?.text ?? '';
    this.notes.set(
      [
        { label: 'Summary', text: newest('summary') },
        { label: 'Until next time', text: newest('until') },
      ].filter(({ text }) => text !== ''),
    );
  }

  /** While the browser prints, the sheets stand beside the application, which isn't printed: see the styles. */
  private async print(signal: AbortSignal): Promise<void> {
    const sheets = this.sheets().nativeElement;
    const images = [...sheets.querySelectorAll('img')];
    await Promise.all(images.map((image) => image.decode()));
    signal.throwIfAborted();
    const outlet = new DomPortalOutlet(document.body);
    outlet.attach(new DomPortal(sheets));
    try {
      await new Promise<void>((done) => {
        // Some browsers come back from `print` while they still draw.
        addEventListener('afterprint', () => done(), { once: true });
        signal.addEventListener('abort', () => done(), { once: true });
        window.print();
      });
    } finally {
      outlet.detach();
    }
  }
}
