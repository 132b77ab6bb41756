import { signal } from '@angular/core';
import type { ImportReport } from '@cuaderno/formats/slides-in/report';
import type { Api } from '../../api/api';
import type { ImportState } from '../../api/imports';

/** How often it is asked whether slides have come whole, in ms. */
const ASKED = 500;

/** The report on the slides that a board was made of, once there is one. */
export class SlideReportDesk {
  readonly report = signal<ImportReport | null>(null);
  /** Whether the tutor has yet to be told of it. */
  readonly isNews = signal(false);
  readonly open = signal(false);
  private closed = false;

  constructor(
    private readonly api: Api,
    private readonly board: () => string,
  ) {}

  /** @param job the import that is still bringing things, if there is one */
  async load(job: string | null): Promise<void> {
    try {
      while (job && !this.closed) {
        const state = await this.api.get<ImportState>(`/imports/${job}`);
        if (state.kind === 'done' || state.kind === 'failed') break;
        await new Promise((next) => setTimeout(next, ASKED));
      }
    } catch {
      // A server that was started anew knows nothing of it; the report may be there all the same.
    }
    if (this.closed) return;
    try {
      const found = await this.api.get<{ report: ImportReport; seen: boolean } | null>(
        `/boards/${this.board()}/report`,
      );
      this.report.set(found?.report ?? null);
      this.isNews.set(found !== null && !found.seen);
    } catch {
      // The board itself says so where there is no line.
    }
  }

  /** The tutor knows now. */
  dismiss(): void {
    this.open.set(false);
    if (!this.isNews()) return;
    this.isNews.set(false);
    void this.api.post(`/boards/${this.board()}/report/seen`).catch(() => undefined);
  }

  close(): void {
    this.closed = true;
  }
}
