import { PDFArray, PDFHexString, PDFName } from '@cantoo/pdf-lib';
import type { PDFDict, PDFDocument, PDFObject, PDFPage, PDFRef } from '@cantoo/pdf-lib';
import type { Destinations } from './destinations.js';
import { annotationsOn } from './draw-in.js';
import { arrayOf, nameOf, numberOf, removeFrom, textOf, wordsOf } from './values.js';

/*
 * A file's pages may go different ways: some are removed, some lie in a file of their own while they are hidden.
 * Links between them are found again by which page of which file a page was at first. Keys of our own (ISO 32000-1,
 * annex E) say so in files that were taken apart.
 */
const ORIGIN = 'CuaOrigin';
const NUMBER = 'CuaPage';
const TO = 'CuaTo';

/** Which page of which file a page was at first. */
export type PageKey = string;

/** What a file was before it was taken apart; `file` where it wasn't. */
export function originOf({ catalog }: PDFDocument, file: string): string {
  return textOf(catalog, ORIGIN) || file;
}

export function keyOf(page: PDFPage, index: number, origin: string): PageKey {
  return `${origin}:${numberOf(page.node, NUMBER) ?? index + 1}`;
}

/** Says in a file that is a part of another which page of it a page was. */
export function markOrigin(doc: PDFDocument, origin: string, numbers: readonly number[]): void {
  doc.catalog.set(PDFName.of(ORIGIN), PDFHexString.fromText(origin));
  doc.getPages().forEach(({ node }, i) => {
    node.set(PDFName.of(NUMBER), doc.context.obj(numbers[i]!));
  });
}

/** Number of a page in the file that it was of at first. */
export function numberAtFirst(page: PDFPage, index: number): number {
  return numberOf(page.node, NUMBER) ?? index + 1;
}

/** Cuts links within a file, so that a page can be copied without those to which it leads. */
export function cutLinks(
  pages: readonly PDFPage[],
  destinations: Destinations,
  keys: readonly PageKey[],
): void {
  for (const page of pages)
    for (const annotation of annotationsOn(page)) {
      annotation.delete(PDFName.of('P'));
      const action = annotation.lookup(PDFName.of('A'));
      const leads =
        annotation.has(PDFName.of('Dest')) ||
        (action !== undefined && nameOf(action as PDFDict, 'S') === 'GoTo');
      if (!leads) continue;
      const to = destinations.of(annotation);
      annotation.delete(PDFName.of('Dest'));
      annotation.delete(PDFName.of('A'));
      const place: PDFObject[] = to
        ? [PDFHexString.fromText(keys[to.page]!), ...to.view]
        : [PDFHexString.fromText('')];
      const list = PDFArray.withContext(annotation.context);
      for (const part of place) list.push(part);
      annotation.set(PDFName.of(TO), list);
    }
}

/**
 * Ties links again to the pages of a new file.
 * @param refs where each page is now; of one that is there more than once, the first
 * @param others what happens to links whose page isn't there: they go, or wait in the file until it is
 */
export function tieLinks(
  pages: readonly PDFPage[],
  refs: ReadonlyMap<PageKey, PDFRef>,
  others: 'go' | 'wait',
): void {
  for (const page of pages) {
    const list = page.node.Annots();
    if (!list) continue;
    const gone = new Set<PDFObject>();
    for (const annotation of annotationsOn(page)) {
      const to = arrayOf(annotation, TO);
      if (!to) continue;
      const ref = refs.get(wordsOf(to.lookup(0)) ?? '');
      if (ref) {
        const place = PDFArray.withContext(annotation.context);
        place.push(ref);
        for (let i = 1; i < to.size(); i++) place.push(to.get(i));
        annotation.set(PDFName.of('Dest'), place);
        annotation.delete(PDFName.of(TO));
      } else if (others === 'go') {
        if (nameOf(annotation, 'Subtype') === 'Link') gone.add(annotation);
        annotation.delete(PDFName.of(TO));
      }
    }
    if (gone.size > 0) removeFrom(list, gone);
  }
}
