import { randomUUID } from 'node:crypto';
import { mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Database } from '../database/index.js';
import type { ImageProcess } from '../pictures/image-process.js';
import { ProblemError } from '../problems/index.js';
import type { BoardPdfs } from '../records/board-pdfs.js';

/** What is needed of a record to draw it. */
export interface Drawable {
  readonly lesson: string;
  readonly title: string;
  readonly courseName: string;
  readonly sealedAt: number;
}

/** Longest side of a page, in pixels: sharp on a phone, and readable when it is spread. */
const SIDE = 1600;

/**
 * Pages of records as pictures, for those who only look: none of the files of which a page is made goes out to them.
 * A record doesn't change, so what is drawn once is kept.
 */
export class SharedPages {
  private readonly making = new Map<string, Promise<unknown>>();

  constructor(
    private readonly parts: {
      readonly db: Database;
      readonly boardPdfs: BoardPdfs;
      readonly imageProcess: ImageProcess;
      /** Folder of stored files. */
      readonly files: string;
      /** Where pages are kept. */
      readonly folder: string;
    },
  ) {}

  /** A page as students saw it at the end, as JPEG. Throws `not-found`. @param number from 1 */
  async page(record: Drawable, number: number): Promise<Buffer> {
    const path = join(this.parts.folder, record.lesson, `${number}.jpg`);
    const known = await readFile(path).catch(() => null);
    return known ?? this.once(path, () => this.draw(record, number, path));
  }

  /** Draws what is asked for first, so that nobody waits for it. */
  async warm(record: Drawable): Promise<void> {
    await this.page(record, 1);
  }

  /** Forgets what was drawn: the record has changed after all. */
  async forget(lesson: string): Promise<void> {
    await rm(join(this.parts.folder, lesson), { recursive: true, force: true });
  }

  private async draw(record: Drawable, page: number, to: string): Promise<Buffer> {
    const path = await this.whole(record);
    const news = await this.parts.imageProcess.show({
      path,
      type: 'pdf',
      page,
      side: SIDE,
      across: null,
    });
    if (news.kind === 'fault') throw new ProblemError('not-found');
    const picture = Buffer.from(news.picture);
    await put(to, picture);
    return picture;
  }

  /** All pages as a PDF, on this machine only. */
  private async whole(record: Drawable): Promise<string> {
    const path = join(this.parts.folder, record.lesson, 'pages.pdf');
    if (await stat(path).catch(() => null)) return path;
    await this.once(path, async () => {
      const { db, boardPdfs, files } = this.parts;
      const pdf = await boardPdfs.make(
        {
          ...{ port: db.lend(), of: { record: record.lesson }, ink: 'drawn' },
          ...{ forStudents: true, title: '', author: '', date: record.sealedAt, files },
        },
        new AbortController().signal,
      );
      await put(path, pdf);
    });
    return path;
  }

  /** Anyone who asks for what is being made waits for the same. */
  private once<T>(key: string, make: () => Promise<T>): Promise<T> {
    const known = this.making.get(key) as Promise<T> | undefined;
    if (known) return known;
    const work = make().finally(() => this.making.delete(key));
    this.making.set(key, work);
    return work;
  }
}

/** There as a whole, or not at all. */
async function put(path: string, bytes: Uint8Array): Promise<void> {
  const folder = join(path, '..');
  await mkdir(folder, { recursive: true });
  const next = join(folder, randomUUID());
  await writeFile(next, bytes);
  await rename(next, path);
}
