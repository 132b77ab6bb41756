import { rotation, visibleBox } from '@cuaderno/core';
import type { PdfPlacement, PdfRect } from '@cuaderno/core';
import { getDocument, VerbosityLevel } from './engine.js';
import type { PDFDocumentProxy } from './engine.js';
import { pageNames } from './page-names.js';
import { PdfError } from './pdf-error.js';
import { isProtected } from './protected.js';
import { sniffPdf } from './sniff.js';

/** An opened PDF: how many pages it has, and how each lies in user space. */
export interface Inspection {
  readonly count: number;
  /** @param number from 1. Throws `PdfError` where the page can't be read. */
  placement(number: number): Promise<PdfPlacement>;
  /** What the file calls its pages, by number; see `pageNames`. */
  names(): Promise<Map<number, string>>;
  /** Whether its maker has forbidden things; see `isProtected`. */
  isProtected(): Promise<boolean>;
  close(): Promise<void>;
}

/**
 * Opens a PDF to see what pages it has; it is not drawn. Read by the same engine that draws it
 * later, so that both agree on every odd file. Takes `bytes` over. Throws `PdfError`.
 */
export async function inspectPdf(bytes: Uint8Array): Promise<Inspection> {
  sniffPdf(bytes);
  const task = getDocument({
    data: bytes,
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    stopAtErrors: false,
  });
  let locked = false;
  task.onPassword = (): void => {
    locked = true;
    task.destroy().catch(() => undefined);
  };
  let doc: PDFDocumentProxy;
  try {
    doc = await task.promise;
  } catch {
    await task.destroy();
    throw new PdfError(locked ? 'locked' : 'broken');
  }
  return {
    count: doc.numPages,
    async placement(number) {
      try {
        const page = await doc.getPage(number);
        const placement = {
          box: visibleBox(page.view as unknown as PdfRect, null),
          rotate: rotation(page.rotate),
          unit: page.userUnit > 0 ? page.userUnit : 1,
        };
        page.cleanup();
        return placement;
      } catch {
        throw new PdfError('broken');
      }
    },
    names: () => pageNames(doc),
    isProtected: () => isProtected(doc),
    close: () => task.destroy(),
  };
}
