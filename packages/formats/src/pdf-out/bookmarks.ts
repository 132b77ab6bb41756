import { PDFNull, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import type { Page } from '@cuaderno/core';
import { writeOutline } from '../pdf-source/outline.js';
import type { WrittenEntry } from '../pdf-source/outline.js';

/** What the contents that files brought along are called within ours. */
const OF_THE_FILE = 'Contents of the file';

/** Pages that follow one another and belong together. */
export interface PageGroup {
  readonly title: string;
  /** How many they are. */
  readonly count: number;
}

/**
 * An outline by the names of the pages (ISO 32000-1, 12.3.3). What brought files have is kept, as the last entry of
 * it; where no page has a name, it is all there is. Of pages in groups, each group has an entry, and under it each of its
 * pages.
 */
export function addBookmarks(
  doc: PDFDocument,
  pages: readonly Page[],
  contents: readonly WrittenEntry[],
  groups: readonly PageGroup[] = [],
): void {
  const view = [PDFName.of('XYZ'), PDFNull, PDFNull, PDFNull];
  const entry = (title: string, i: number, under: readonly WrittenEntry[] = []): WrittenEntry => ({
    ...{ title, to: { page: doc.getPage(i).ref, view }, open: under.length > 0, under },
  });
  if (groups.length > 1) {
    let first = 0;
    const entries = groups.flatMap(({ title, count }) => {
      const from = first;
      first += count;
      const under = pages
        .slice(from, first)
        .map(({ name }, i) => entry(name || `Page ${i + 1}`, from + i));
      return count > 0 ? [entry(title, from, under)] : [];
    });
    const rest = pages.flatMap(({ name }, i) => (i >= first && name ? [entry(name, i)] : []));
    return writeOutline(doc, [...entries, ...rest]);
  }
  const named = pages.flatMap(({ name }, i) => (name === '' ? [] : [entry(name, i)]));
  const names = new Set(named.map(({ title }) => title));
  // Contents of one level that say what the pages' names say are there already.
  const said = contents.every(({ title, under }) => under.length === 0 && names.has(title));
  // Closed, so that one sees the pages first.
  const kept = { title: OF_THE_FILE, to: null, open: false, under: contents };
  writeOutline(doc, named.length === 0 ? contents : said ? named : [...named, kept]);
}
