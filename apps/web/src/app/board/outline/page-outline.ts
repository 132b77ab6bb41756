import { ChangeDetectionStrategy, Component, computed, effect, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { pageNumbers } from '@cuaderno/core/board';
import type { Board, PdfPaper } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { Id } from '@cuaderno/core/id';
import { pageOutline } from '@cuaderno/core/outline';
import { auditTime, catchError, filter, from, map, of, switchMap, timer } from 'rxjs';
import type { Observable } from 'rxjs';
import { isLineThin } from '../../browser/thin-line';
import type { PaperSource } from '../drawing/paper-source';

/** How long what happens on the page is gathered before it is put into words, in ms. */
const GATHERED = 1500;
/** For how long a page is in view before what is printed on it is read, in ms: who turns on asks for nothing. */
const SETTLED = 800;

/**
 * The page in view in words, for who can't see it: what is printed on it, then what lies there and who wrote where, in
 * reading order. It is kept up to date, and not announced: it is read when somebody goes there.
 */
@Component({
  selector: 'cua-page-outline',
  template: `
    <section class="unseen" [attr.aria-label]="label()">
      @if (paper() && printed() === null) {
        <!-- For who reads by a screen reader's own cursor: no one who sees comes to it by Tab. -->
        <button type="button" tabindex="-1" (click)="asked.set(true)">
          Read what is printed on it
        </button>
      }
      @for (line of printed() ?? []; track $index) {
        <p>{{ line }}</p>
      }
      @if (parts(); as list) {
        <ul>
          @for (part of list; track part.id) {
            <li>{{ part.words }}</li>
          } @empty {
            <li>{{ paper() ? 'Nothing lies on it.' : 'It is empty.' }}</li>
          }
        </ul>
      }
    </section>
  `,
  styles: `
    /* It takes no room of its own: all of that is the page's. */
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageOutline {
  readonly board = input.required<Board>();
  /** The page in view. */
  readonly page = input.required<Id | null>();
  readonly papers = input.required<Pick<PaperSource, 'words'>>();
  readonly authorOf = input.required<(id: Id) => Author | null>();

  /** Over a thin line the PDF isn't fetched for its words unless somebody asks. */
  protected readonly asked = signal(!isLineThin());
  /** What is printed, in lines; `null` where it hasn't been read. */
  protected readonly printed = signal<readonly string[] | null>(null);
  protected readonly label = computed(() => {
    const number = pageNumbers(this.board()).get(this.page() ?? '');
    return number ? `Page ${number} in words` : 'The page in words';
  });
  protected readonly paper = computed(
    () => {
      const paper = this.board().pages.get(this.page() ?? '')?.paper;
      return paper?.kind === 'pdf' ? paper : null;
    },
    { equal: isSamePaper },
  );
  private readonly now = computed(() => ({
    page: this.board().pages.get(this.page() ?? ''),
    authorOf: this.authorOf(),
  }));
  private readonly gathered = toSignal(toObservable(this.now).pipe(auditTime(GATHERED)));
  protected readonly parts = computed(() => {
    const shown = this.gathered();
    // Not of the page before.
    if (!shown?.page || shown.page.id !== this.page()) return null;
    return pageOutline(shown.page, (by) => shown.authorOf(by)?.name ?? null);
  });
  private readonly wanted = computed(() => (this.asked() ? this.paper() : null));

  constructor() {
    effect(() => {
      this.paper();
      this.printed.set(null);
    });
    toObservable(this.wanted)
      .pipe(
        // Another page is in view by then: that is read.
        switchMap((paper) =>
          paper ? timer(SETTLED).pipe(switchMap(() => this.words(paper))) : of(null),
        ),
        filter((lines) => lines !== null),
        takeUntilDestroyed(),
      )
      .subscribe((lines) => this.printed.set(lines));
  }

  /** A page whose words can't be read has none: it says so itself when it can't be fetched. */
  private words(paper: PdfPaper): Observable<readonly string[]> {
    return from(this.papers().words(paper)).pipe(
      catchError(() => of('')),
      map((text) => text.split('\n').filter((line) => line.trim() !== '')),
    );
  }
}

function isSamePaper(a: PdfPaper | null, b: PdfPaper | null): boolean {
  return a?.file === b?.file && a?.number === b?.number;
}
