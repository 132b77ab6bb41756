import { signal } from '@angular/core';
import { troubleOf } from '../../api/api';
import type { Api, Trouble } from '../../api/api';
import { boardOfImport } from '../../api/imports';
import type { BoardInfo, Lifted } from '../../api/shapes';

/** A board, and the hash of the PDF it was made of. */
export type MadeBoard = BoardInfo & {
  readonly file: string | null;
  readonly lifted?: Lifted;
  /** The import that is still bringing things to it, if there is one. */
  readonly job?: string;
};

/** A file on its way to becoming a board. */
export class Upload {
  private readonly abort = new AbortController();
  readonly part = signal(0);
  readonly trouble = signal<Trouble | null>(null);
  /** All bytes are there; the server looks at the pages. */
  readonly reading = signal(false);
  /** How far slides are that are being turned into pages, in words. */
  readonly slides = signal<string | null>(null);

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
  }

  private async converted(job: string): Promise<MadeBoard | null> {
    const say = (words: string): void => this.slides.set(words);
    const board = await boardOfImport(this.api, job, say, this.abort.signal);
    return board && { ...board, file: null, job };
  }
}
