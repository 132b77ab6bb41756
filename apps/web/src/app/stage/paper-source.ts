import type { FileHash, PdfPaper } from '@cuaderno/core';
import type * as PdfJs from 'pdfjs-dist';
import type { LocalFiles } from './local-files';

/** Bytes asked for at a time: a page of text, not a whole book. */
const CHUNK = 256 * 1024;
/** Documents kept open. */
const MAX_OPEN = 6;

let loading: Promise<typeof PdfJs> | null = null;

/** pdf.js and its worker, loaded once and then kept warm. */
export function pdfJs(): Promise<typeof PdfJs> {
  loading ??= import('pdfjs-dist').then((pdf) => {
    pdf.GlobalWorkerOptions.workerPort ??= new Worker(
      new URL('/pdfjs/pdf.worker.min.mjs', location.href),
      { type: 'module' },
    );
    return pdf;
  });
  return loading;
}

type Doc = ReturnType<typeof PdfJs.getDocument>;

/**
 * Draws pages of imported PDFs, straight from the stored file: only the parts of it that a page
 * needs are fetched, so page 200 of a book is there as fast as page 1 of a leaflet.
 */
export class PaperSource {
  private readonly open = new Map<FileHash, Doc>();

  /** @param local files that are on this machine already */
  constructor(private readonly local: Pick<LocalFiles, 'get'> | null = null) {}

  /**
   * Draws the part of a page that begins at (`x`, `y`) points and has the canvas's size, at `scale`
   * pixels a point. Rejects with an `AbortError` if given up.
   */
  async draw(
    paper: PdfPaper,
    canvas: HTMLCanvasElement,
    { x, y, scale }: { x: number; y: number; scale: number },
    signal: AbortSignal,
  ): Promise<void> {
    const doc = await (await this.document(paper.file)).promise;
    signal.throwIfAborted();
    const page = await doc.getPage(paper.number);
    signal.throwIfAborted();
    // The page's own unit is in `scale` already: our points are true points.
    const viewport = page.getViewport({ scale, offsetX: -x * scale, offsetY: -y * scale });
    const task = page.render({ canvas, viewport, background: '#ffffff' });
    const stop = (): void => task.cancel();
    signal.addEventListener('abort', stop);
    try {
      await task.promise;
    } catch (error) {
      signal.throwIfAborted();
      throw error;
    } finally {
      signal.removeEventListener('abort', stop);
    }
  }

  close(): void {
    for (const doc of this.open.values()) void doc.destroy();
    this.open.clear();
  }

  private async document(hash: FileHash): Promise<Doc> {
    const pdf = await pdfJs();
    let doc = this.open.get(hash);
    if (!doc) {
      const local = this.local?.get(hash);
      doc = pdf.getDocument({
        ...(local ? { data: await local.arrayBuffer() } : { url: `/api/files/${hash}` }),
        rangeChunkSize: CHUNK,
        disableAutoFetch: true,
        disableStream: true,
        isEvalSupported: false,
        // The shipped fonts, not this machine's: a page looks the same everywhere.
        useSystemFonts: false,
        cMapUrl: '/pdfjs/cmaps/',
        standardFontDataUrl: '/pdfjs/standard_fonts/',
        wasmUrl: '/pdfjs/wasm/',
        iccUrl: '/pdfjs/iccs/',
      });
      const mine = doc;
      // One that could not be opened is asked for again: the line may be back by then.
      doc.promise.catch(() => {
        if (this.open.get(hash) === mine) this.open.delete(hash);
      });
      this.open.set(hash, doc);
      for (const [old, task] of this.open) {
        if (this.open.size <= MAX_OPEN) break;
        this.open.delete(old);
        void task.destroy();
      }
    }
    return doc;
  }
}
