import type { PdfPaper } from '@cuaderno/core/board';
import type { FileHash } from '@cuaderno/core/id';
import { isProtected } from '@cuaderno/formats/pdf-in/protected';
import type { RenderTask } from 'pdfjs-dist';
import type { LocalFiles } from './local-files';
import { Films } from './films';
import { lendLetters } from './lent-letters';
import { PagesFromServer } from './page-from-server';
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

  /** Those of them that can be read. */
  private readonly open = new Set<FileHash>();
  private readonly fromServer = new PagesFromServer();

  /**
   * @param local files that are on this machine already
   * @param thin whether the line is thin: then a page that the server draws comes first, and the PDF only when more is
   * needed of it
   */
  constructor(
    private readonly local: Pick<LocalFiles, 'open'> | null = null,
    private readonly thin: () => boolean = () => false,
  ) {}

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
    if (await this.drawnByServer(paper, canvas, { x, y, scale }, signal)) return;
    const doc = await (await this.document(paper.file)).promise;
    signal.throwIfAborted();
    const page = await doc.getPage(paper.number);
    signal.throwIfAborted();
    // The page's own unit is in `scale` already: our points are true points.
    const viewport = page.getViewport({ scale, offsetX: -x * scale, offsetY: -y * scale });
    const render = (): RenderTask => page.render({ canvas, viewport, background: '#ffffff' });
    await done(render(), signal);
    // Where letters can't be lent just now, the page is there without them.
    const again = await lendLetters(page).catch(() => false);
    signal.throwIfAborted();
    if (again) await done(render(), signal);
  }

  /** Whether the page is there as it should be without its PDF. */
  private async drawnByServer(
    paper: PdfPaper,
    canvas: HTMLCanvasElement,
    part: { x: number; y: number; scale: number },
    signal: AbortSignal,
  ): Promise<boolean> {
    if (this.open.has(paper.file) || !this.thin()) return false;
    try {
      return await this.fromServer.draw(paper, canvas, part, signal);
    } catch (error) {
      if (signal.aborted) throw error;
      return false;
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

  /** Whether its maker has forbidden to change, copy or print a PDF. */
  async isProtected(file: FileHash): Promise<boolean> {
    return isProtected(await (await this.document(file)).promise);
  }

  close(): void {
    this.pictures.close();
    this.fromServer.close();
    for (const doc of this.docs.values()) destroy(doc);
    this.docs.clear();
    this.open.clear();
  }

  private document(hash: FileHash): Promise<PdfDoc> {
    const known = this.docs.get(hash);
    if (known) return known;
    const doc = this.local?.open(hash) ?? openPdf({ url: `/api/files/${hash}` });
    this.docs.set(hash, doc);
    // One that could not be opened is asked for again: the line may be back by then.
    doc
      .then((task) => task.promise)
      .then(() => this.docs.get(hash) === doc && this.open.add(hash))
      .catch(() => {
        if (this.docs.get(hash) === doc) this.docs.delete(hash);
      });
    for (const [old, task] of this.docs) {
      if (this.docs.size <= MAX_OPEN) break;
      this.docs.delete(old);
      this.open.delete(old);
      destroy(task);
    }
    return doc;
  }
}

/** Rejects with an `AbortError` if given up. */
async function done(task: RenderTask, signal: AbortSignal): Promise<void> {
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

function destroy(doc: Promise<PdfDoc>): void {
  void doc.then(
    (task) => task.destroy(),
    () => undefined,
  );
}
