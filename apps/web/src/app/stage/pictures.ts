import type { FileHash } from '@cuaderno/core';

/** Pixels kept decoded, all pictures together; those that were asked for last stay. */
const MAX_PIXELS = 60_000_000;
/** How long to wait before a picture that could not be fetched is tried again, in ms. */
const RETRY = 3000;

/** Pictures of stored files, decoded away from this thread and kept while they are in use. */
export class Pictures {
  private readonly bitmaps = new Map<FileHash, ImageBitmap>();
  private readonly coming = new Set<FileHash>();
  private readonly waiting = new Set<() => void>();
  private pixels = 0;
  private closed = false;

  /** The picture if it is here; else it is fetched, and whoever watches is told when it has come. */
  get(file: FileHash): ImageBitmap | null {
    const bitmap = this.bitmaps.get(file);
    if (bitmap) {
      // Asked for last, dropped last.
      this.bitmaps.delete(file);
      this.bitmaps.set(file, bitmap);
      return bitmap;
    }
    void this.fetch(file);
    return null;
  }

  /** Calls `then` whenever a picture has come, until the function that is returned is called. */
  watch(then: () => void): () => void {
    this.waiting.add(then);
    return () => this.waiting.delete(then);
  }

  /** Something that was missing has come, a font say. */
  announce(): void {
    for (const then of this.waiting) then();
  }

  close(): void {
    this.closed = true;
    for (const bitmap of this.bitmaps.values()) bitmap.close();
    this.bitmaps.clear();
    this.waiting.clear();
  }

  private async fetch(file: FileHash): Promise<void> {
    if (this.coming.has(file) || this.closed) return;
    this.coming.add(file);
    try {
      const response = await fetch(`/api/files/${file}`);
      if (!response.ok) throw new Error(String(response.status));
      this.keep(file, await createImageBitmap(await response.blob()));
      this.coming.delete(file);
    } catch {
      // The line may be away; it is asked for again when something is drawn after a while.
      setTimeout(() => {
        this.coming.delete(file);
        this.announce();
      }, RETRY);
    }
  }

  private keep(file: FileHash, bitmap: ImageBitmap): void {
    if (this.closed) return bitmap.close();
    this.bitmaps.set(file, bitmap);
    this.pixels += bitmap.width * bitmap.height;
    for (const [old, other] of this.bitmaps) {
      if (this.pixels <= MAX_PIXELS || old === file) break;
      this.pixels -= other.width * other.height;
      this.bitmaps.delete(old);
      other.close();
    }
    this.announce();
  }
}
