import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { FileStore } from '../files/store.js';
import type { ImageProcess } from '../pictures/image-process.js';
import type { ShowNews } from '../pictures/show.js';
import { ProblemError } from '../problems/index.js';
import type { AssetRow } from './shelf.js';

/** Longest side of a small picture, in pixels: sharp on the densest screens. */
const SMALL = 320;
/** Longest side of a page to be looked at, in pixels. */
const PAGE = 1600;
/** Pages that were looked at last and are kept for who turns back, in bytes. */
const KEPT = 32 * 1024 * 1024;

/** What of an asset can be seen: a file that can be drawn, and how. */
interface Seen {
  readonly file: string;
  readonly type: 'pdf' | 'picture';
}

/** What can be seen of an asset; `null` where nothing can, or not yet. */
export function previewOf({ kind, file, preview }: AssetRow): Seen | null {
  if (kind === 'pdf') return { file, type: 'pdf' };
  if (kind === 'picture') return { file, type: 'picture' };
  if (kind === 'slides') return preview ? { file: preview, type: 'pdf' } : null;
  if (kind === 'film') return preview ? { file: preview, type: 'picture' } : null;
  return null;
}

/** Pictures of pages, made where no tutor waits for theirs to be brought. */
export class PagePictures {
  private readonly making = new Map<string, Promise<Buffer>>();
  /** Those looked at last, the oldest first. */
  private readonly recent = new Map<string, Buffer>();
  private recentBytes = 0;

  /** @param folder where small pictures are kept */
  constructor(
    private readonly store: FileStore,
    private readonly imageProcess: ImageProcess,
    private readonly folder: string,
  ) {}

  /** A small picture of the first page, as JPEG. Throws `not-found` where there is nothing to see. */
  async small(asset: AssetRow): Promise<Buffer> {
    const seen = previewOf(asset);
    if (!seen) throw new ProblemError('not-found');
    const path = this.pathOf(seen.file);
    const known = await readFile(path).catch(() => null);
    return known ?? this.once(path, () => this.make(seen, path));
  }

  /**
   * A page with words across it, as JPEG. Throws `not-found` for a page that isn't there.
   * @param page from 1
   */
  async page(asset: AssetRow, page: number, across: string): Promise<Buffer> {
    const seen = previewOf(asset);
    if (!seen) throw new ProblemError('not-found');
    const key = `${seen.file} ${page} ${across}`;
    const known = this.recent.get(key);
    if (known) return known;
    return this.once(key, async () => {
      const path = this.store.path(seen.file);
      const made = picture(
        await this.imageProcess.show({ path, type: seen.type, page, side: PAGE, across }),
      );
      this.keep(key, made);
      return made;
    });
  }

  /**
   * A page of a stored PDF, as WebP. Throws `not-found` for a page that isn't there.
   * @param page from 1
   * @param side of the longer side, in pixels
   */
  async paper(file: string, page: number, side: number): Promise<Buffer> {
    const key = `${file} ${page} ${side}`;
    const known = this.recent.get(key);
    if (known) return known;
    return this.once(key, async () => {
      const path = this.store.path(file);
      const made = picture(
        await this.imageProcess.show({ path, type: 'pdf', page, side, across: null, webp: true }),
      );
      this.keep(key, made);
      return made;
    });
  }

  /** Removes what was drawn of files that are gone. */
  async forget(hashes: readonly string[]): Promise<void> {
    for (const hash of hashes) await rm(this.pathOf(hash), { force: true });
  }

  private pathOf(hash: string): string {
    return join(this.folder, `${hash}.jpg`);
  }

  private async make(seen: Seen, to: string): Promise<Buffer> {
    const path = this.store.path(seen.file);
    const made = picture(
      await this.imageProcess.show({ path, type: seen.type, page: 1, side: SMALL, across: null }),
    );
    await mkdir(this.folder, { recursive: true });
    const next = join(this.folder, randomUUID());
    await writeFile(next, made);
    await rename(next, to);
    return made;
  }

  private keep(key: string, bytes: Buffer): void {
    this.recent.set(key, bytes);
    this.recentBytes += bytes.length;
    for (const [oldest, { length }] of this.recent) {
      if (this.recentBytes <= KEPT) break;
      this.recent.delete(oldest);
      this.recentBytes -= length;
    }
  }

  /** Anyone who asks for what is being made waits for the same. */
  private once(key: string, make: () => Promise<Buffer>): Promise<Buffer> {
    const known = this.making.get(key);
    if (known) return known;
    const work = make().finally(() => this.making.delete(key));
    this.making.set(key, work);
    return work;
  }
}

function picture(news: ShowNews): Buffer {
  if (news.kind === 'fault') throw new ProblemError('not-found');
  return Buffer.from(news.picture);
}
