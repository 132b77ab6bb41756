import { getDocument, VerbosityLevel } from './engine.js';

export interface PageDrawing {
  /** From 1. */
  readonly page: number;
  /** Longest side of the drawing, in pixels. */
  readonly side: number;
  /** Folder of pdf.js with what it needs besides: fonts, character maps, decoders; ends with `/`. */
  readonly resources: string;
}

/**
 * Draws a page of a PDF on the sheet that `sheet` gives for its size in pixels, which isn't asked
 * for where there is no such page. Returns how many pages there are. Takes `bytes` over; throws
 * where it can't be drawn.
 */
export async function drawPdfPage(
  bytes: Uint8Array,
  { page: number, side, resources }: PageDrawing,
  sheet: (width: number, height: number) => CanvasRenderingContext2D,
): Promise<number> {
  const task = getDocument({
    data: bytes,
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    // Letters are drawn as outlines: there are no font faces where there is no browser.
    disableFontFace: true,
    useSystemFonts: false,
    cMapUrl: `${resources}cmaps/`,
    standardFontDataUrl: `${resources}standard_fonts/`,
    wasmUrl: `${resources}wasm/`,
    iccUrl: `${resources}iccs/`,
  });
  try {
    const doc = await task.promise;
    if (number > doc.numPages) return doc.numPages;
    const page = await doc.getPage(number);
    const size = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: side / Math.max(size.width, size.height) });
    const context = sheet(
      Math.max(1, Math.round(viewport.width)),
      Math.max(1, Math.round(viewport.height)),
    );
    await page.render({ canvas: null, canvasContext: context, viewport }).promise;
    return doc.numPages;
  } finally {
    await task.destroy();
  }
}
