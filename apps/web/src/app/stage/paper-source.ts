import type { FileHash, PdfPaper } from '@cuaderno/core';
import type { LocalFiles } from './local-files';
import { Films } from './films';
import { openPdf } from './pdf-js';
import { Pictures } from './pictures';
import type { PdfDoc } from './pdf-js';

/** Documents kept open. */
const MAX_OPEN = 6;

/**
 * Draws pages of imported PDFs, straight from the stored file: only the parts of it that a page
 * needs are fetched, so page 200 of a book is there as fast as page 1 of a leaflet.
 */
export class PaperSource {
  /** Pictures that lie on the pages. */
  readonly pictures = new Pictures();
  /** Films on them that are being watched. */
  readonly films = new Films();
  private readonly docs = new Map<FileHash, Promise<PdfDoc>>();

  /** @param local files that are on this machine already */
  constructor(private readonly local: Pick<LocalFiles, 'open'> | null = null) {}

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

  /** All words of an imported page, a line for each of its own. */
  async words(paper: PdfPaper): Promise<string> {
    const doc = await (await this.document(paper.file)).promise;
    const page = await doc.getPage(paper.number);
    const { items } = await page.getTextContent();
    return items
      .map((item) => ('str' in item ? item.str + (item.hasEOL ? '\n' : '') : ''))
      .join('');
  }

  close(): void {
    this.pictures.close();
    for (const doc of this.docs.values()) destroy(doc);
    this.docs.clear();
  }

  private document(hash: FileHash): Promise<PdfDoc> {
    const known = this.docs.get(hash);
    if (known) return known;
    const doc = this.local?.open(hash) ?? openPdf({ url: `/api/files/${hash}` });
    this.docs.set(hash, doc);
    // One that could not be opened is asked for again: the line may be back by then.
    doc
      .then((task) => task.promise)
      .catch(() => {
        if (this.docs.get(hash) === doc) this.docs.delete(hash);
      });
    for (const [old, task] of this.docs) {
      if (this.docs.size <= MAX_OPEN) break;
      this.docs.delete(old);
      destroy(task);
    }
    return doc;
  }
}

function destroy(doc: Promise<PdfDoc>): void {
  void doc.then(
    (task) => task.destroy(),
    () => undefined,
  );
}
