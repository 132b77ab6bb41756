import { importBoard } from '@cuaderno/contract/routes/boards';
import { signal } from '@angular/core';
import { lastAnswer } from '../../api/api';
import type { Api } from '../../api/api';
import { boardOfImport } from '../../api/imports';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardInfo, ImportedAnnotations } from '../../api/shapes';

/** A board, and the hash of the PDF it was made of. */
export type UploadedBoard = BoardInfo & {
  readonly file: string | null;
  readonly annotations?: ImportedAnnotations;
  /** The import that is still bringing things to it, if there is one. */
  readonly job?: string;
};

/** A file on its way to becoming a board. */
export class CourseUpload {
  private readonly abort = new AbortController();
  readonly part = signal(0);
  readonly problem = signal<ProblemDetails | null>(null);
  /** All bytes are there; the server looks at the pages. */
  readonly reading = signal(false);
  /** How far slides are that are being turned into pages, in words. */
  readonly slides = signal<string | null>(null);

  constructor(
    private readonly api: Api,
    readonly file: File,
    private readonly course: string,
  ) {}

  async run(): Promise<UploadedBoard | null> {
    try {
      const asked = {
        params: { course: this.course },
        query: { name: this.file.name.slice(0, 1000) },
        body: this.file,
      };
      const made = await lastAnswer(
        this.api.send(importBoard, asked),
        (part) => {
          this.part.set(part);
          this.reading.set(part >= 1);
        },
        this.abort.signal,
      );
      return 'id' in made ? made : await this.converted(made.job);
    } catch (error) {
      if (!this.abort.signal.aborted) this.problem.set(problemOf(error));
      return null;
    }
  }

  cancel(): void {
    this.abort.abort();
  }

  private async converted(job: string): Promise<UploadedBoard | null> {
    const say = (words: string): void => this.slides.set(words);
    const board = await boardOfImport(this.api, job, say, this.abort.signal);
    return board && { ...board, file: null, job };
  }
}
