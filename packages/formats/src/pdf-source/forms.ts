import { PDFBool, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFDict, PDFPage } from '@cantoo/pdf-lib';
import { annotationsOn, drawIn } from './draw-in.js';
import { dropFields } from './fields.js';
import { dictOf, nameOf } from './values.js';

/** Places of a form's fields on a page. */
export function widgetsOn(page: PDFPage): Set<PDFDict> {
  return new Set(annotationsOn(page).filter((dict) => nameOf(dict, 'Subtype') === 'Widget'));
}

/**
 * Gives fields the look that they have by what is filled in: those that have none, and all where the file asks for it
 * (`NeedAppearances`). A field for which that can't be done keeps the one it has.
 */
export function completeForm(doc: PDFDocument): void {
  const dict = dictOf(doc.catalog, 'AcroForm');
  if (!dict) return;
  const asked = dict.lookup(PDFName.of('NeedAppearances')) === PDFBool.True;
  dict.delete(PDFName.of('NeedAppearances'));
  try {
    const form = doc.getForm();
    const font = form.getDefaultFont();
    for (const field of form.getFields()) {
      try {
        const isText = ['Tx', 'Ch'].includes(nameOf(field.acroField.dict, 'FT') ?? '');
        if ((asked && isText) || field.needsAppearancesUpdate())
          field.defaultUpdateAppearances(font);
      } catch {
        // It keeps the look it has.
      }
    }
  } catch {
    // A form that can't be read is drawn as far as its fields have looks.
  }
}

/** Makes fields part of the drawing of these pages: what is drawn on them later lies above. */
export function drawFieldsIn(doc: PDFDocument, pages: readonly PDFPage[]): void {
  const gone = new Set<PDFDict>();
  for (const page of pages) {
    const widgets = widgetsOn(page);
    drawIn(page, widgets);
    for (const widget of widgets) gone.add(widget);
  }
  dropFields(doc, gone);
}
