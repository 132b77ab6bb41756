import type { ImportReport } from '@cuaderno/formats/slides-in/report';
import { signal } from '@angular/core';
import { catchError, concat, EMPTY, ignoreElements, Subscription } from 'rxjs';
import type { ImportsApi } from '../../api/imports-api';

/** How often it is asked whether slides have come whole, in ms. */
const ASKED = 500;

/** The report on the slides that a board was made of, once there is one. */
export class SlideReport {
  readonly report = signal<ImportReport | null>(null);
  /** Whether the tutor has yet to be told. */
  readonly isNews = signal(false);
  readonly open = signal(false);
  private loading = Subscription.EMPTY;

  constructor(
    private readonly importsApi: ImportsApi,
    private readonly board: () => string,
  ) {}

  /** @param job the import that is still bringing things, if there is one */
  load(job: string | null): void {
    const board = this.board();
    const whole = job
      ? // A server that was started anew knows nothing of it; the report may be there all the same.
        this.importsApi.followImport(job, ASKED).pipe(
          catchError(() => EMPTY),
          ignoreElements(),
        )
      : EMPTY;
    this.loading.unsubscribe();
    this.loading = concat(whole, this.importsApi.readImportReport(board)).subscribe({
      next: (found) => {
        this.report.set(found?.report ?? null);
        this.isNews.set(found !== null && !found.seen);
      },
      // The board itself says so where there is no line.
      error: () => undefined,
    });
  }

  /** The tutor knows now. */
  dismiss(): void {
    this.open.set(false);
    if (!this.isNews()) return;
    this.isNews.set(false);
    this.importsApi.markReportSeen(this.board()).subscribe({ error: () => undefined });
  }

  close(): void {
    this.loading.unsubscribe();
  }
}
