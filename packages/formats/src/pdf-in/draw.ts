import { getDocument, RESOURCES, VerbosityLevel } from './engine.js';
import { missingFonts, wordsOn } from './missing-fonts.js';

export interface PdfPageDrawing {
  /** From 1. */
  readonly page: number;
  /** Longest side of the drawing, in pixels. */
  readonly side: number;
  /** Families of fonts that have these letters, for letters of fonts that a file names but doesn't have in it. */
  readonly families?: (words: string) => Promise<readonly string[]>;
}

/**
 * Draws a page of a PDF on the sheet that `sheet` gives for its size in pixels, which isn't asked
 * for where there is no such page. Returns how many pages there are. Takes `bytes` over; throws
 * where it can't be drawn.
 */
export async function drawPdfPage(
  bytes: Uint8Array,
  { page: number, side, families }: PdfPageDrawing,
  sheet: (width: number, height: number) => CanvasRenderingContext2D,
): Promise<number> {
  const task = getDocument({
    data: bytes,
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    // Letters are drawn as outlines: there are no font faces where there is no browser.
    disableFontFace: true,
    useSystemFonts: false,
    ...RESOURCES,
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
    const render = (): Promise<void> =>
      page.render({ canvas: null, canvasContext: context, viewport }).promise;
    await render();
    // Which fonts a page is drawn with is known when it has been drawn: those few pages are drawn twice.
    const missing = families ? missingFonts(page) : [];
    const lent = missing.length > 0 ? await families!(await wordsOn(page)) : [];
    if (lent.length > 0) {
      lend(context, missing, lent);
      await render();
    }
    return doc.numPages;
  } finally {
    await task.destroy();
  }
}

/** Whatever is written in a missing font on this sheet is from now on written in those that are lent for it. */
function lend(
  context: CanvasRenderingContext2D,
  missing: readonly string[],
  lent: readonly string[],
): void {
  const { get, set } = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(context), 'font')!;
  const names = lent.map((name) => `"${name}"`).join(', ');
  Object.defineProperty(context, 'font', {
    configurable: true,
    get: () => get!.call(context) as string,
    set: (font: string) => {
      const said = missing.reduce((words, name) => words.replace(`"${name}"`, names), font);
      set!.call(context, said);
    },
  });
}
