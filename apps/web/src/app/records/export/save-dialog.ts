import type { Board, Page } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { BoardFileWish } from '@cuaderno/formats/board-file';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { CheckboxModule } from 'primeng/checkbox';
import { FormsModule } from '@angular/forms';
import { firstValueFrom, lastValueFrom } from 'rxjs';
import { untilAborted } from '../../api/api';
import { BoardsApi } from '../../api/boards-api';
import type { ProblemDetails } from '../../api/problem';
import { Button } from '../../ui/button/button';
import { DIALOG } from '../../ui/popup/dialog';
import type { PaperSource } from '../../board/drawing/paper-source';
import { boardAsFile } from './board-file';
import { copyPage, whyNotCopied } from '../../board/page-files/clipboard-picture';
import { FileWish } from './file-wish';
import { Making } from './making';
import { pagePng } from '../../board/page-files/page-image';
import { pageInkMl } from '../../board/page-files/page-inkml';
import { pageAsSvg } from '../../board/page-files/page-svg';
import { ProtectedNote } from './protected-note';
import { svgWords } from '../../board/page-files/svg-words';
import { ProblemMessage } from '../../ui/problem/problem-message';

type BoardForm = 'file' | 'pdf' | 'png' | 'svg' | 'inkml';

const FORMS: readonly { form: BoardForm; label: string; words: string }[] = [
  {
    form: 'file',
    label: 'Board file',
    words: 'All of it in one file, margins and hidden pages too. It opens as the same board.',
  },
  { form: 'pdf', label: 'PDF', words: 'Every page, to print or to send.' },
  { form: 'png', label: 'This page as PNG', words: 'A sharp picture of it.' },
  { form: 'svg', label: 'This page as SVG', words: '' },
  {
    form: 'inkml',
    label: 'Its ink as InkML',
    words: 'The lines of this page, with pressure and time.',
  },
];

const notCopied = (): ProblemDetails => ({
  type: 'urn:cuaderno:not-copied',
  title: 'The browser did not let the page onto the clipboard.',
  detail: whyNotCopied(),
});

/** Asks as what a board, or a page of it, is to be saved on this machine. */
@Component({
  selector: 'cua-save-dialog',
  imports: [Button, CheckboxModule, DIALOG, FileWish, FormsModule, ProblemMessage, ProtectedNote],
  templateUrl: './save-dialog.html',
  styleUrl: './save-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaveDialog {
  readonly board = input.required<Board>();
  readonly page = input.required<Page>();
  /** Of the page, from 1. */
  readonly number = input.required<string>();
  readonly papers = input.required<PaperSource>();
  /** Pages of which what is on them is still to come. */
  readonly coming = input<ReadonlyMap<Id, number>>(new Map());
  readonly closed = output();
  private readonly boardsApi = inject(BoardsApi);

  protected readonly forms = FORMS;
  protected readonly svgWords = computed(() => svgWords(this.page()));
  protected readonly form = signal<BoardForm>('file');
  protected readonly ink = signal(true);
  /** What of what was written goes into a board file, and whether with names. */
  protected readonly fileInk = signal<BoardFileWish['ink']>('all');
  protected readonly named = signal(false);
  private readonly making = new Making();
  protected readonly part = this.making.part;
  protected readonly copying = signal(false);
  protected readonly copied = signal(false);
  protected readonly problem = this.making.problem;
  protected readonly ofPage = computed(() => this.form() === 'png' || this.form() === 'svg');
  /** Pages that what is to be saved waits for. */
  protected readonly missing = computed(() => {
    const coming = this.coming();
    if (this.form() === 'file') return coming.size;
    return (this.ofPage() || this.form() === 'inkml') && coming.has(this.page().id) ? 1 : 0;
  });
  protected readonly percent = computed(() => Math.round((this.part() ?? 0) * 100));

  protected async save(): Promise<void> {
    this.copied.set(false);
    if (await this.making.save((signal) => this.made(signal))) this.closed.emit();
  }

  protected async copy(): Promise<void> {
    this.copied.set(false);
    this.copying.set(true);
    this.problem.set(null);
    try {
      await copyPage(this.page(), this.papers(), this.ink());
      this.copied.set(true);
    } catch {
      this.problem.set(notCopied());
    } finally {
      this.copying.set(false);
    }
  }

  protected stop(): void {
    this.making.stop();
  }

  protected close(): void {
    this.stop();
    this.closed.emit();
  }

  private async made(signal: AbortSignal): Promise<{ blob: Blob; name: string }> {
    const { title } = this.board();
    const papers = this.papers();
    const ink = this.ink();
    const ofPage = `${title}, page ${this.number()}`;
    switch (this.form()) {
      case 'file': {
        const progress = (part: number): void => this.part.set(part);
        const board = this.board();
        const { writers } = this.named()
          ? await firstValueFrom(this.boardsApi.listBoardWriters(board.id))
          : { writers: null };
        const wish = { ink: this.fileInk(), people: writers };
        const blob = await boardAsFile(board, papers, wish, signal, progress);
        return { blob, name: `${title}.cuaderno.zip` };
      }
      case 'pdf':
        return lastValueFrom(
          this.boardsApi
            .downloadBoardPdf(this.board().id, { ink: ink ? 'all' : 'none' })
            .pipe(untilAborted(signal)),
        );
      case 'inkml':
        return { blob: await pageInkMl(this.page()), name: `${ofPage}.inkml` };
      case 'png':
        return {
          blob: await pagePng(this.page(), papers, { ink, signal }),
          name: `${ofPage}.png`,
        };
      case 'svg': {
        const svg = await pageAsSvg(this.page(), papers, { ink, signal });
        return { blob: new Blob([svg], { type: 'image/svg+xml' }), name: `${ofPage}.svg` };
      }
    }
  }
}
