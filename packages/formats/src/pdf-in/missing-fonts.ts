import type { PDFPageProxy } from 'pdfjs-dist';

/** What is asked of a font as pdf.js describes it once a page has been drawn. */
interface DrawnFont {
  readonly loadedName?: string;
  readonly missingFile?: boolean;
  readonly isType3Font?: boolean;
}

/**
 * Names by which a page asked for fonts that its file doesn't have in it and pdf.js doesn't bring: mostly Chinese,
 * Japanese and Korean ones, which every reader was once to have (ISO 32000-1, 9.7.5.2). To be asked when it has been
 * drawn.
 */
export function missingFonts(page: PDFPageProxy): string[] {
  const objects = page.commonObjs as unknown as Iterable<[string, DrawnFont | null]>;
  const names = [...objects].flatMap(([, font]) =>
    font?.missingFile && font.loadedName && !font.isType3Font ? [font.loadedName] : [],
  );
  return [...new Set(names)];
}

/** All words on a page. */
export async function wordsOn(page: PDFPageProxy): Promise<string> {
  const { items } = await page.getTextContent();
  return items.map((item) => ('str' in item ? item.str : '')).join(' ');
}
