import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { isDiskFull, ProblemError } from '../problems/index.js';

export interface StoredFile {
  readonly hash: string;
  readonly bytes: number;
  /** Where it lies on this machine. */
  readonly path: string;
}

/** Where a stored file lies. */
export function filePath(folder: string, hash: string): string {
  return join(folder, hash.slice(0, 2), hash);
}

/** Files under the SHA-256 of their content: the same content twice is stored once. */
export class FileStore {
  /** Where files are that are not taken in yet. Cleared at every start. */
  readonly incoming: string;
  private readonly retained = new Map<string, number>();

  constructor(readonly folder: string) {
    this.incoming = join(folder, 'incoming');
  }

  /** Makes the folders, and clears what broken-off uploads of an earlier run have left. */
  async open(): Promise<void> {
    await mkdir(this.incoming, { recursive: true });
    for (const name of await readdir(this.incoming)) await rm(join(this.incoming, name));
  }

  /** Keeps a file that nothing names yet from being removed, until what is returned is called. */
  hold(hash: string): () => void {
    this.retained.set(hash, (this.retained.get(hash) ?? 0) + 1);
    return () => {
      const left = this.retained.get(hash)! - 1;
      if (left > 0) this.retained.set(hash, left);
      else this.retained.delete(hash);
    };
  }

  /** Removes a file, unless someone holds it. */
  async remove(hash: string): Promise<void> {
    if (this.retained.has(hash)) return;
    await rm(this.path(hash), { force: true });
  }

  path(hash: string): string {
    return filePath(this.folder, hash);
  }

  /** Takes over a file that lies on this disk already, under its content from now on. */
  async adopt(path: string): Promise<StoredFile> {
    const hash = createHash('sha256');
    let bytes = 0;
    for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      hash.update(chunk);
    }
    if (bytes === 0) throw new ProblemError('file-empty');
    const handle = await open(path, 'r+');
    try {
      await handle.sync();
    } finally {
      await handle.close();
    }
    const digest = hash.digest('hex');
    await mkdir(join(this.folder, digest.slice(0, 2)), { recursive: true });
    await rename(path, this.path(digest));
    return { hash: digest, bytes, path: this.path(digest) };
  }

  /**
   * Takes in a stream of at most `limit` bytes; on disk when this returns. Throws
   * `file-too-large`, `file-empty` or `upload-broken-off`, and leaves nothing behind then.
   */
  async put(input: Readable, limit: number): Promise<StoredFile> {
    const temporary = join(this.incoming, randomUUID());
    const handle = await open(temporary, 'wx');
    try {
      const hash = createHash('sha256');
      let bytes = 0;
      try {
        for await (const chunk of input as AsyncIterable<Buffer>) {
          bytes += chunk.length;
          if (bytes > limit) throw new ProblemError('file-too-large', { detail: tooLarge(limit) });
          hash.update(chunk);
          // All of it: a nearly full disk takes a part, and says nothing of the rest.
          await handle.writeFile(chunk);
        }
      } catch (error) {
        if (error instanceof ProblemError || isDiskFull(error)) throw error;
        throw new ProblemError('upload-broken-off');
      }
      if (bytes === 0) throw new ProblemError('file-empty');
      await handle.sync();
      const digest = hash.digest('hex');
      const path = this.path(digest);
      await mkdir(join(this.folder, digest.slice(0, 2)), { recursive: true });
      await rename(temporary, path);
      return { hash: digest, bytes, path };
    } finally {
      await handle.close();
      await rm(temporary, { force: true });
    }
  }
}

export function tooLarge(limit: number): string {
  return `At most ${Math.round(limit / 1024 / 1024)} MB can be brought at once. Split it, or save it with smaller pictures.`;
}
