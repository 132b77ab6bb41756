import { signal } from '@angular/core';
import { troubleOf } from '../../api/api';
import { ApiError } from '../../api/api';
import type { Api, Trouble } from '../../api/api';
import type { BoardInfo } from '../../api/shapes';

/** A board, and the hash of the PDF it was made of. */
export type MadeBoard = BoardInfo & {
  readonly file: string | null;
  /** The import that is still bringing things to it, if there is one. */
  readonly job?: string;
};

/** How far slides are on their way to pages; see `/imports/:job`. */
export type ImportState =
  | { readonly kind: 'waiting'; readonly before: number }
  | { readonly kind: 'converting' }
  | { readonly kind: 'board' | 'done'; readonly board: BoardInfo }
  | { readonly kind: 'failed'; readonly problem: Trouble };

/** How often it is asked how far slides are, in ms. */
const ASKED = 120;

/** A file on its way to becoming a board. */
export class Upload {
  private readonly abort = new AbortController();
  readonly part = signal(0);
  readonly trouble = signal<Trouble | null>(null);
  /** All bytes are there; the server looks at the pages. */
  readonly reading = signal(false);
  /** Slides are being turned into pages; how many decks are before these. */
  readonly slides = signal<number | null>(null);
  private job: string | null = null;

  constructor(
    private readonly api: Api,
    readonly file: File,
    private readonly course: string,
  ) {}

  async run(): Promise<MadeBoard | null> {
    try {
      const name = encodeURIComponent(this.file.name.slice(0, 1000));
      const made = await this.api.upload<MadeBoard | { readonly job: string }>(
        `/courses/${this.course}/boards/bring?name=${name}`,
        this.file,
        (part) => {
          this.part.set(part);
          this.reading.set(part >= 1);
        },
        this.abort.signal,
      );
      return 'id' in made ? made : await this.converted(made.job);
    } catch (error) {
      if (!this.abort.signal.aborted) this.trouble.set(troubleOf(error));
      return null;
    }
  }

  cancel(): void {
    this.abort.abort();
    const { job } = this;
    // Who gives up need not know whether it was too late.
    if (job) void this.api.post(`/imports/${job}/cancel`).catch(() => undefined);
  }

  /** The board that slides have become, as soon as there is something to look at. */
  private async converted(job: string): Promise<MadeBoard | null> {
    this.job = job;
    while (!this.abort.signal.aborted) {
      const state = await this.api.get<ImportState>(`/imports/${job}`);
      if (state.kind === 'failed') throw new ApiError(state.problem, 422);
      if (state.kind === 'board' || state.kind === 'done') {
        this.job = null;
        return { ...state.board, file: null, job };
      }
      this.slides.set(state.kind === 'waiting' ? state.before : 0);
      await new Promise((next) => setTimeout(next, ASKED));
    }
    return null;
  }
}
