import { eastAsianIn } from '@cuaderno/core/text';
import { missingFonts, wordsOn } from '@cuaderno/formats/pdf-in/missing-fonts';
import type { PDFPageProxy } from 'pdfjs-dist';
import { slicesFor } from './east-asian-fonts';

/** Words of pages that have such fonts: a page is drawn again with every zoom. */
const said = new WeakMap<PDFPageProxy, Promise<string>>();

/** Files that are lent to fonts by now, by the name that a PDF calls the font by. */
const lent = new Map<string, Set<string>>();

/**
 * Lends fonts of ours to a page that names Chinese, Japanese or Korean ones which aren't in its file: without them
 * its letters are boxes, or whatever this machine has. To be called when the page has been drawn.
 * @returns whether it is to be drawn once more, with them
 */
export async function lendLetters(page: PDFPageProxy): Promise<boolean> {
  const names = missingFonts(page);
  if (names.length === 0) return false;
  const reading = said.get(page) ?? wordsOn(page);
  said.set(page, reading);
  const words = await reading;
  const slices = await slicesFor(eastAsianIn(words), words);
  const faces = names.flatMap((name) => {
    const has = lent.get(name) ?? new Set();
    lent.set(name, has);
    return slices
      .filter(({ address }) => !has.has(address))
      .map(({ address, range }) => ({ has, address, face: faceOf(name, address, range) }));
  });
  await Promise.all(
    faces.map(async ({ has, address, face }) => {
      document.fonts.add(face);
      try {
        await face.load();
        has.add(address);
      } catch {
        // The line is away: the next drawing asks for it again.
        document.fonts.delete(face);
      }
    }),
  );
  return faces.length > 0;
}

function faceOf(name: string, address: string, unicodeRange: string): FontFace {
  const source = `url('${address}') format('woff2')`;
  return new FontFace(name, source, { weight: '100 900', unicodeRange });
}
