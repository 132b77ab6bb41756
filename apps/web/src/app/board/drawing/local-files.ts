import { Injectable } from '@angular/core';
import type { FileHash } from '@cuaderno/core/id';
import { openPdf } from './pdf-js';
import type { PdfDoc } from './pdf-js';

/** Largest file, in bytes, that is drawn from this machine whole; parts of larger ones are fetched. */
const MAX_BYTES = 20 * 1024 * 1024;

/** A PDF on this machine. It is opened while it is being sent, so that it is ready when it has arrived. */
export class LocalFile {
  private early: Promise<PdfDoc> | null;

  constructor(private readonly file: Blob) {
    this.early = this.fits ? this.read() : null;
    // The first page is looked up, too. Whether it can be read is told by the server, in its words.
    this.early
      ?.then((doc) => doc.promise)
      .then((pdf) => pdf.getPage(1))
      .catch(() => undefined);
  }

  get fits(): boolean {
    return this.file.size <= MAX_BYTES;
  }

  /** Opens it; the first time, it is open already. */
  open(): Promise<PdfDoc> {
    const { early } = this;
    this.early = null;
    return early ?? this.read();
  }

  /** It will not be asked for. */
  discard(): void {
    this.early?.then((doc) => doc.destroy()).catch(() => undefined);
    this.early = null;
  }

  private async read(): Promise<PdfDoc> {
    const doc = await openPdf({ data: await this.file.arrayBuffer() });
    doc.promise.catch(() => undefined);
    return doc;
  }
}

/** Files that this window has just sent: their pages needn't come back over the line. */
@Injectable({ providedIn: 'root' })
export class LocalFiles {
  private readonly files = new Map<FileHash, LocalFile>();

  add(hash: FileHash, file: LocalFile): void {
    if (!file.fits) return;
    this.files.get(hash)?.discard();
    this.files.set(hash, file);
  }

  /** Opens a file if it is one of these. */
  open(hash: FileHash): Promise<PdfDoc> | undefined {
    return this.files.get(hash)?.open();
  }
}
