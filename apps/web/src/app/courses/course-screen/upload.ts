import { signal } from '@angular/core';
import { lastAnswer } from '../../api/api';
import type { BoardsApi } from '../../api/boards-api';
import type { ImportsApi } from '../../api/imports-api';
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
    private readonly boardsApi: BoardsApi,
    private readonly importsApi: ImportsApi,
    readonly file: File,
    private readonly course: string,
  ) {}

  async run(): Promise<UploadedBoard | null> {
    try {
      const made = await lastAnswer(
        this.boardsApi.importBoard(this.course, this.file, { name: this.file.name.slice(0, 1000) }),
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
    const board = await this.importsApi.boardOfImport(job, say, this.abort.signal);
    return board && { ...board, file: null, job };
  }
}
