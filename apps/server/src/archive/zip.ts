import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** Something in an archive: its path in it, and its bytes, made when its turn comes. */
export interface ArchiveEntry {
  readonly path: string;
  /** Packed already, as PDF and pictures are. */
  readonly packed: boolean;
  bytes(): Promise<Uint8Array | AsyncIterable<Uint8Array>>;
}

/**
 * An archive (zip) as it is made, one entry after the other: no more than one is in memory, and anyone who stops reading
 * stops the making.
 * @param failed told which entry couldn't be made; it is left out
 */
export async function* zipOf(
  entries: AsyncIterable<ArchiveEntry>,
  failed: (path: string, error: unknown) => void,
): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    ready.push(chunk);
  });
  for await (const entry of entries) {
    let content: Uint8Array | AsyncIterable<Uint8Array>;
    try {
      content = await entry.bytes();
    } catch (error) {
      failed(entry.path, error);
      continue;
    }
    const file = entry.packed ? new ZipPassThrough(entry.path) : new ZipDeflate(entry.path);
    zip.add(file);
    if (content instanceof Uint8Array) {
      file.push(content, true);
    } else {
      for await (const piece of content) {
        file.push(piece);
        yield* ready.splice(0);
      }
      file.push(new Uint8Array(0), true);
    }
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready.splice(0);
}

/** Paths of which no two are the same, and that every system takes. */
export class Paths {
  private readonly taken = new Set<string>();

  /** @param folder ends with `/`, or is empty; @param ending begins with a dot, or is empty */
  free(folder: string, name: string, ending: string): string {
    const base = safe(name);
    for (let n = 1; ; n++) {
      const path = `${folder}${base}${n > 1 ? ` (${n})` : ''}${ending}`;
      if (this.taken.has(path.toLowerCase())) continue;
      this.taken.add(path.toLowerCase());
      return path;
    }
  }
}

export function safe(name: string): string {
  const plain = name
    .replace(/[\p{Cc}<>:"/\\|?*]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/^[. ]+|[. ]+$/g, '');
  return [...plain].slice(0, 100).join('') || 'Without a name';
}
