import { PDFNull, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import type { Page } from '@cuaderno/core';
import { writeOutline } from '../pdf-source/outline.js';
import type { WrittenEntry } from '../pdf-source/outline.js';

/** What the contents that files brought along are called within ours. */
const OF_THE_FILE = 'Contents of the file';

/**
 * An outline by the names of the pages (ISO 32000-1, 12.3.3). What brought files have is kept, as the last entry of
 * it; where no page has a name, it is all there is.
 */
export function addBookmarks(
  doc: PDFDocument,
  pages: readonly Page[],
  contents: readonly WrittenEntry[],
): void {
  const view = [PDFName.of('XYZ'), PDFNull, PDFNull, PDFNull];
  const named = pages.flatMap(({ name }, i): WrittenEntry[] =>
    name === ''
      ? []
      : [{ title: name, to: { page: doc.getPage(i).ref, view }, open: false, under: [] }],
  );
  const names = new Set(named.map(({ title }) => title));
  // Contents of one level that say what the pages' names say are there already.
  const said = contents.every(({ title, under }) => under.length === 0 && names.has(title));
  // Closed, so that one sees the pages first.
  const kept = { title: OF_THE_FILE, to: null, open: false, under: contents };
  writeOutline(doc, named.length === 0 ? contents : said ? named : [...named, kept]);
}
