import type { FileHash } from '@cuaderno/core/id';

/** Pixels kept decoded, all pictures together, before those go that were not asked for lately. */
const MAX_PIXELS = 60_000_000;
/** What was asked for so lately is in view, and stays however much there is; ms. */
const LATELY = 10_000;
/** Pixels of one picture at most: sharp at twice the size of a large screen's page. */
const MAX_PICTURE = 4_000_000;
/** How long to wait before a picture that could not be fetched is tried again, in ms. */
const RETRY = 3000;

/** Pictures of stored files, decoded away from this thread and kept while they are in use. */
export class Pictures {
  private readonly kept = new Map<FileHash, { bitmap: ImageBitmap; askedAt: number }>();
  private readonly coming = new Set<FileHash>();
  private readonly waiting = new Set<() => void>();
  private pixels = 0;
  private closed = false;

  /** The picture if it is here; else it is fetched, and anyone who watches is told when it has come. */
  get(file: FileHash): ImageBitmap | null {
    const known = this.kept.get(file);
    if (known) {
      known.askedAt = performance.now();
      return known.bitmap;
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
    for (const { bitmap } of this.kept.values()) bitmap.close();
    this.kept.clear();
    this.waiting.clear();
  }

  private async fetch(file: FileHash): Promise<void> {
    if (this.coming.has(file) || this.closed) return;
    this.coming.add(file);
    try {
      const response = await fetch(`/api/files/${file}`);
      if (!response.ok) throw new Error(String(response.status));
      this.keep(file, await decoded(await response.blob()));
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
    const now = performance.now();
    this.kept.set(file, { bitmap, askedAt: now });
    this.pixels += bitmap.width * bitmap.height;
    for (const [old, { bitmap: other, askedAt }] of this.kept) {
      if (this.pixels <= MAX_PIXELS) break;
      if (now - askedAt < LATELY) continue;
      this.pixels -= other.width * other.height;
      this.kept.delete(old);
      other.close();
    }
    this.announce();
  }
}

/** Decoded, and scaled down where it has more pixels than are of use on a page. */
async function decoded(blob: Blob): Promise<ImageBitmap> {
  const whole = await createImageBitmap(blob);
  const scale = Math.sqrt(MAX_PICTURE / (whole.width * whole.height));
  if (scale >= 1) return whole;
  const small = await createImageBitmap(whole, {
    resizeWidth: Math.max(1, Math.round(whole.width * scale)),
    resizeHeight: Math.max(1, Math.round(whole.height * scale)),
    resizeQuality: 'high',
  });
  whole.close();
  return small;
}
