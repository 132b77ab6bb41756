import type { KnownFiles } from '../files/known-files.js';
import type { FileStore, StoredFile } from '../files/store.js';
import { isPacked } from '../intake/packed.js';
import type { ImportQueue } from '../slides/queue.js';
import type { SlideImports } from '../slides/slide-imports.js';
import type { BoardFiles } from './board-files.js';
import type { Imports } from '../pdf-imports/import.js';
import { NO_ANNOTATIONS } from '../pdf-imports/annotation-import.js';
import type { ImportedAnnotationCounts } from '../pdf-imports/annotation-import.js';
import type { BoardInfo } from '../boards/service.js';
import { titleFromFileName } from '../boards/title.js';

export interface ImportLimits {
  readonly maxUploadBytes: number;
  readonly maxPages: number;
}

/** A board, or the import that will make one. */
export type ImportOutcome =
  | {
      readonly kind: 'board';
      readonly board: BoardInfo;
      readonly file: string | null;
      readonly annotations: ImportedAnnotationCounts;
    }
  | { readonly kind: 'job'; readonly job: string };

/** Makes boards of stored files, whatever they turn out to be: PDFs, slides, boards that were saved. */
export class ImportRouter {
  constructor(
    private readonly parts: {
      readonly known: KnownFiles;
      readonly store: FileStore;
      readonly imports: Imports;
      readonly slides: SlideImports;
      readonly queue: ImportQueue;
      readonly boardFiles: BoardFiles;
    },
    private readonly limits: ImportLimits,
  ) {}

  /**
   * Throws the problem that keeps the file from becoming a board; then nothing was made.
   * @param name what the file is called
   */
  async importFile(
    file: StoredFile,
    name: string,
    course: string,
    tutor: string,
  ): Promise<ImportOutcome> {
    const { imports, slides, queue, boardFiles, store, known } = this.parts;
    const { maxUploadBytes, maxPages } = this.limits;
    const title = titleFromFileName(name);
    const wishes = { course, tutor, title, fileName: `${title}.pdf`, maxPages };
    // The same file may be on its way twice.
    const release = store.hold(file.hash);
    const over = (): Promise<void> => {
      release();
      return known.dropUnknown(file.hash);
    };
    try {
      if (!(await isPacked(file.path))) {
        const { file: shown, annotations, ...board } = await imports.begin(file, wishes);
        release();
        return { kind: 'board', board, file: shown, annotations };
      }
      const deck = await slides.kindOf(file, maxUploadBytes);
      if (deck) {
        const job = queue.add(tutor, async (news, signal) => {
          try {
            return await slides.run(file, deck, { ...wishes, maxUploadBytes }, news, signal);
          } finally {
            await over();
          }
        });
        return { kind: 'job', job };
      }
      const board = await boardFiles.open(file, { course, tutor, maxUploadBytes });
      // What is in it is kept, not the zip.
      await over();
      return { kind: 'board', board, file: null, annotations: NO_ANNOTATIONS };
    } catch (error) {
      await over();
      throw error;
    }
  }
}
