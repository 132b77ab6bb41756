import { signal } from '@angular/core';
import { troubleOf } from '../../api/api';
import type { Api, Trouble } from '../../api/api';
import type { BoardInfo } from '../../api/shapes';

/** A board, and the hash of the PDF it was made of. */
export type MadeBoard = BoardInfo & { readonly file: string | null };

/** A file on its way to becoming a board. */
export class Upload {
  private readonly abort = new AbortController();
  readonly part = signal(0);
  readonly trouble = signal<Trouble | null>(null);
  /** All bytes are there; the server looks at the pages. */
  readonly reading = signal(false);

  constructor(
    private readonly api: Api,
    readonly file: File,
    private readonly course: string,
  ) {}

  async run(): Promise<MadeBoard | null> {
    try {
      const name = encodeURIComponent(this.file.name.slice(0, 1000));
      return await this.api.upload<MadeBoard>(
        `/courses/${this.course}/boards/bring?name=${name}`,
        this.file,
        (part) => {
          this.part.set(part);
          this.reading.set(part >= 1);
        },
        this.abort.signal,
      );
    } catch (error) {
      if (!this.abort.signal.aborted) this.trouble.set(troubleOf(error));
      return null;
    }
  }

  cancel(): void {
    this.abort.abort();
  }
}
