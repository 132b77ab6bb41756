import type { Id } from '@cuaderno/core';
import type { DeckKind } from '@cuaderno/formats/slides-in';
import type { FastifyBaseLogger } from 'fastify';
import { rm } from 'node:fs/promises';
import type { Imports } from '../pdf-imports/import.js';
import { boardFileProblem } from '../imports/board-files.js';
import type { KnownFiles } from '../files/known-files.js';
import type { FileStore, StoredFile } from '../files/store.js';
import type { Remark } from '@cuaderno/contract/materials';
import type { Material, MaterialIntake } from '../intake/intake.js';
import { isPacked, UNPACKED } from '../intake/packed.js';
import type { SlideImports } from '../slides/slide-imports.js';
import { FileName } from '@cuaderno/contract/materials';
import type { BoardFileReader } from '../boards/board-file-reader.js';
import type { ArrivingFile, CourseOf, Materials } from './service.js';
import type { AssetRow } from './shelf.js';

/** Media types of decks, as they are registered with IANA. */
const DECK_TYPES: Record<DeckKind, string> = {
  pptx: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  ppt: 'application/vnd.ms-powerpoint',
  odp: 'application/vnd.oasis.opendocument.presentation',
};

/** What a file is, and what is to be said of it. */
type SeenFile = Omit<ArrivingFile, 'name'> & { readonly remarks?: readonly Remark[] };

/** Takes files onto shelves: looks at what they are, and refuses what nothing can be made of. */
export class Arrivals {
  private readonly running = new Set<Promise<void>>();

  constructor(
    private readonly parts: {
      readonly materials: Materials;
      readonly intake: MaterialIntake;
      readonly imports: Imports;
      readonly slides: SlideImports;
      readonly store: FileStore;
      readonly known: KnownFiles;
      readonly boardFiles: BoardFileReader;
      readonly log: FastifyBaseLogger;
    },
    private readonly maxUploadBytes: number,
  ) {}

  /**
   * Throws the problem that keeps a stored file from being of use; then it isn't kept.
   * @returns where it lies, and what is to be said of it
   */
  addUpload(
    tutor: Id,
    folder: Id | null,
    name: string,
    came: StoredFile,
  ): Promise<{ asset: AssetRow; remarks: readonly Remark[] }> {
    return this.keeping(came, async () => {
      const { remarks = [], ...arrival } = await this.lookAt(came);
      return {
        asset: await this.parts.materials.add(tutor, folder, { name, ...arrival }),
        remarks,
      };
    });
  }

  /** Takes a picture as the still of a film. Throws the problem that keeps it from being one. */
  still(film: AssetRow, came: StoredFile): Promise<void> {
    return this.keeping(came, async () => {
      const { intake, materials } = this.parts;
      await materials.setPreview(film, await intake.picture(came), null);
    });
  }

  /** What came is kept only if it is what is shown in the end, or was there before. */
  private async keeping<T>(came: StoredFile, work: () => Promise<T>): Promise<T> {
    const { store, known } = this.parts;
    const release = store.hold(came.hash);
    try {
      return await work();
    } finally {
      release();
      await known.dropUnknown(came.hash);
    }
  }

  /** Puts on the shelf what was brought to a board and is stored already. */
  async landed(course: CourseOf, arrival: ArrivingFile): Promise<void> {
    const { materials } = this.parts;
    const { assets } = await materials.shelf(course.tutor);
    if (assets.some(({ file }) => file === arrival.file)) return;
    await materials.add(course.tutor, await materials.folderOf(course), arrival);
  }

  /** Puts a PDF or slides on the shelf that were brought to a course; nobody waits for that. */
  addImported(course: CourseOf, name: string, came: StoredFile): void {
    const { store, slides, log } = this.parts;
    const release = store.hold(came.hash);
    const work = async (): Promise<void> => {
      // Of a saved board, what is in it is kept.
      const packed = await isPacked(came.path).catch(() => null);
      if (packed === null) return;
      if (packed && !(await slides.kindOf(came, this.maxUploadBytes))) return;
      const arrival = await this.lookAt(came);
      await this.landed(course, { ...arrival, name: FileName.catch('File').parse(name) });
    };
    const task = work()
      .catch((error: unknown) => log.error({ err: error }, 'an uploaded file is not in materials'))
      .finally(() => {
        release();
        this.running.delete(task);
      });
    this.running.add(task);
  }

  /** Waits for what is under way. */
  async settled(): Promise<void> {
    while (this.running.size > 0) await Promise.all(this.running);
  }

  /** The same for what was laid on one of the course's boards. */
  async laid(course: CourseOf, name: string, kept: Material): Promise<void> {
    const { bytes, type } = await this.parts.known.info(kept.file);
    await this.landed(course, { ...NO_SIZE, ...kept, name, bytes, type, pages: null });
  }

  /** What a stored file is. Throws the problem of one that is of no use. */
  async lookAt(came: StoredFile): Promise<SeenFile> {
    if (await isPacked(came.path)) return this.unpack(came);
    const { hash: file, bytes, type, facts } = await this.parts.intake.check(came);
    if (facts) return { ...NO_SIZE, ...facts, file, bytes, type, pages: null };
    const pages = await this.parts.imports.count(came.path);
    return { ...NO_SIZE, kind: 'pdf', file, bytes, type, pages };
  }

  private async unpack(came: StoredFile): Promise<SeenFile> {
    const { slides, boardFiles, store } = this.parts;
    const { hash: file, bytes } = came;
    const deck = await slides.kindOf(came, this.maxUploadBytes);
    if (deck)
      return { ...NO_SIZE, kind: 'slides', file, bytes, type: DECK_TYPES[deck], pages: null };
    const news = await boardFiles.open({
      path: came.path,
      folder: store.incoming,
      maxBytes: this.maxUploadBytes * UNPACKED,
    });
    if (news.kind === 'fault') throw boardFileProblem(news.fault, news.message);
    for (const { place } of news.files) if (place) await rm(place, { force: true });
    await rm(news.json, { force: true });
    const { pages } = news;
    return { ...NO_SIZE, kind: 'board', file, bytes, type: 'application/zip', pages };
  }
}

const NO_SIZE = { width: 0, height: 0, length: 0 } as const;
