import { getDocument, RESOURCES, VerbosityLevel } from './engine.js';

/**
 * All words of some pages of a PDF, a line for each of the page's own, by the pages' numbers. A page that can't
 * be read has none. Takes `bytes` over; throws where the file can't be opened.
 *
 * @param numbers from 1
 */
export async function wordsOfPdf(
  bytes: Uint8Array,
  numbers: Iterable<number>,
): Promise<Map<number, string>> {
  const task = getDocument({
    data: bytes,
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    ...RESOURCES,
  });
  const words = new Map<number, string>();
  try {
    const doc = await task.promise;
    for (const number of numbers) {
      try {
        const page = await doc.getPage(number);
        const { items } = await page.getTextContent();
        const lines = items.map((item) =>
          'str' in item ? item.str + (item.hasEOL ? '\n' : '') : '',
        );
        words.set(number, lines.join(''));
        page.cleanup();
      } catch {
        words.set(number, '');
      }
    }
    return words;
  } finally {
    await task.destroy();
  }
}
