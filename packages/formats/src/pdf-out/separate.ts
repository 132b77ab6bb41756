import { PDFDocument } from '@cantoo/pdf-lib';
import type { PDFPage, PDFRef } from '@cantoo/pdf-lib';
import { newId } from '@cuaderno/core';
import { numberAtFirst, originOf, markOrigin, tieLinks } from '../pdf-source/links.js';
import type { PageKey } from '../pdf-source/links.js';
import { writeOutline } from '../pdf-source/outline.js';
import { writePageLabels } from '../pdf-source/page-labels.js';
import { markProtected, wasProtected } from '../pdf-source/protection.js';
import { dropStrayPages, SourceFile } from '../pdf-source/source-file.js';
import { entriesFor } from './assemble.js';

/** A file without some of its pages, and each of those as a file of its own. */
export interface Separated {
  /** The others at their numbers; empty sheets stand where pages were taken. */
  readonly rest: Uint8Array;
  /** A file of one page for each page that was taken, in the order that was asked for. */
  readonly taken: readonly Uint8Array[];
}

/**
 * Takes pages out of a PDF so that nothing of them is left in it: what they alone used is not written either, and no
 * link, entry of the contents or name leads to them. The pages' own text and vectors stay as they were. Each part
 * knows which page of which file its pages were, so that links are whole again where they come together.
 * @param numbers of the pages to be taken, from 1
 */
export async function separatePdf(
  bytes: Uint8Array,
  numbers: readonly number[],
): Promise<Separated> {
  const source = await PDFDocument.load(bytes, { password: '', updateMetadata: false });
  const origin = originOf(source, newId());
  const isProtected = wasProtected(source);
  const first = source.getPages().map(numberAtFirst);
  const gone = new Set(numbers.map((number) => number - 1));
  const part = async (indices: readonly (number | null)[]): Promise<Uint8Array> => {
    const doc = await PDFDocument.create();
    if (isProtected) markProtected(doc);
    // The source is changed by the first part that is made of it in ways that every part needs.
    const file = new SourceFile(source, doc, origin);
    const refs = new Map<PageKey, PDFRef>();
    const copies: PDFPage[] = [];
    for (const index of indices) {
      const page = index === null ? doc.addPage([72, 72]) : doc.addPage(file.copy(index));
      if (index === null) continue;
      copies.push(page);
      refs.set(file.keys[index]!, page.ref);
    }
    tieLinks(copies, refs, 'wait');
    dropStrayPages(doc);
    writeOutline(doc, entriesFor(file.outline, file.keys, refs));
    if (file.labels)
      writePageLabels(
        doc,
        indices.map((index) => (index === null ? null : file.labels![index]!)),
      );
    markOrigin(
      doc,
      origin,
      indices.map((index, i) => first[index ?? i]!),
    );
    return doc.save();
  };
  const rest = await part(source.getPageIndices().map((i) => (gone.has(i) ? null : i)));
  const taken: Uint8Array[] = [];
  for (const number of numbers) taken.push(await part([number - 1]));
  return { rest, taken };
}
