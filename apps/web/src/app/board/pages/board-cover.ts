import { pageFromSnapshot } from '@cuaderno/core/board';
import { unpack } from '@cuaderno/core/wire';
import type { Page, PageSnapshot } from '@cuaderno/core/board';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { BoardsApi } from '../../api/boards-api';
import { RecordsApi } from '../../api/records-api';
import type { PaperSource } from '../drawing/paper-source';
import { PageThumb } from './page-thumb';

/** A board, or the record of a lesson. */
export type CoverOf = { readonly board: string } | { readonly record: string };

/**
 * A small picture of a board, of its first page, or of a record, of the page with most ink. It is fetched when it comes
 * into view: a course may have hundreds.
 */
@Component({
  selector: 'cua-board-cover',
  imports: [PageThumb],
  template: `@if (page(); as first) {
    <cua-page-thumb [page]="first" [papers]="papers()" />
  }`,
  styles: `
    :host {
      display: grid;
      place-items: center;
      width: 72px;
      height: 84px;
      /* A tall page is cut at its foot; the shadow of a wide one isn't. */
      overflow: clip;
      overflow-clip-margin: 6px;
    }
    cua-page-thumb {
      width: 100%;
    }
  `,
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardCover {
  readonly of = input.required<CoverOf>();
  readonly papers = input.required<PaperSource>();
  private readonly boardsApi = inject(BoardsApi);
  private readonly recordsApi = inject(RecordsApi);
  protected readonly page = signal<Page | null>(null);

  constructor() {
    const inView = signal(false);
    const watcher = new IntersectionObserver((entries) => {
      if (entries.at(-1)!.isIntersecting) inView.set(true);
    });
    watcher.observe(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
    inject(DestroyRef).onDestroy(() => watcher.disconnect());
    effect(() => {
      const of = this.of();
      if (inView()) untracked(() => void this.load(of));
    });
  }

  private async load(of: CoverOf): Promise<void> {
    const preview =
      'record' in of
        ? this.recordsApi.readRecordPreview(of.record)
        : this.boardsApi.readBoardPreview(of.board);
    try {
      const bytes = await firstValueFrom(preview);
      this.page.set(pageFromSnapshot(unpack(bytes) as PageSnapshot));
    } catch {
      // Only a picture: the board's name is there to go by.
      this.page.set(null);
    }
  }
}
