import { PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';
import { arrayOf, dictOf, dictsIn } from '../pdf-source/values.js';

/** Nodes of a tree that are gone through at most. */
const MOST_NODES = 1000;

/** How many files are attached to a PDF as a whole: names in its tree of embedded files (ISO 32000-1, 7.11.4, 7.9.6). */
export function attachedTo(doc: PDFDocument): number {
  const names = doc.catalog.lookup(PDFName.of('Names'));
  const root = names instanceof PDFDict ? dictOf(names, 'EmbeddedFiles') : null;
  const seen = new Set<PDFDict>();
  const waiting = root ? [root] : [];
  let count = 0;
  for (let node; (node = waiting.pop()) && seen.size < MOST_NODES;) {
    if (seen.has(node)) continue;
    seen.add(node);
    // Pairs of a name and a file.
    count += Math.floor((arrayOf(node, 'Names')?.size() ?? 0) / 2);
    waiting.push(...dictsIn(arrayOf(node, 'Kids')));
  }
  return count;
}
