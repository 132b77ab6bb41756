import { Injectable } from '@angular/core';
import type { FileHash } from '@cuaderno/core';

/** Largest file, in bytes, that is drawn from this machine whole; parts of larger ones are fetched. */
const MAX_BYTES = 20 * 1024 * 1024;

/** Files that this window has just sent: their pages needn't come back over the line. */
@Injectable({ providedIn: 'root' })
export class LocalFiles {
  private readonly files = new Map<FileHash, Blob>();

  add(hash: FileHash, file: Blob): void {
    if (file.size <= MAX_BYTES) this.files.set(hash, file);
  }

  get(hash: FileHash): Blob | undefined {
    return this.files.get(hash);
  }
}
