import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFDict } from '@cantoo/pdf-lib';
import { arrayOf, dictOf, dictsIn, removeFrom } from './values.js';

/** Fields of a form that are walked through at most. */
const MOST = 20_000;

/** All fields and parts of fields of a file's form, each once (ISO 32000-1, 12.7.3). */
export function fieldsOf({ catalog }: PDFDocument): Set<PDFDict> {
  const form = dictOf(catalog, 'AcroForm');
  const seen = new Set<PDFDict>();
  const waiting = form ? dictsIn(arrayOf(form, 'Fields')) : [];
  for (let field = waiting.pop(); field && seen.size < MOST; field = waiting.pop()) {
    if (seen.has(field)) continue;
    seen.add(field);
    waiting.push(...dictsIn(arrayOf(field, 'Kids')));
  }
  return seen;
}

/**
 * Takes fields' places on pages out of the form, and fields that have none any more; where none is left, the form is
 * gone.
 */
export function dropFields(doc: PDFDocument, widgets: ReadonlySet<PDFDict>): void {
  if (widgets.size === 0) return;
  const form = dictOf(doc.catalog, 'AcroForm');
  const fields = form && arrayOf(form, 'Fields');
  if (!form || !fields) return;
  const gone = new Set<PDFDict>(widgets);
  // From the leaves up: a field without any part left goes with the last of them.
  for (const field of [...fieldsOf(doc)].reverse()) {
    const kids = arrayOf(field, 'Kids');
    if (!kids || kids.size() === 0) continue;
    removeFrom(kids, gone);
    if (kids.size() === 0) gone.add(field);
  }
  removeFrom(fields, gone);
  const order = arrayOf(form, 'CO');
  if (order) removeFrom(order, gone);
  if (fields.size() === 0) doc.catalog.delete(PDFName.of('AcroForm'));
}
