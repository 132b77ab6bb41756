import { PDFName } from '@cantoo/pdf-lib';
import type { PDFDict, PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { drawnOn, itemBounds, materialOn, transform } from '@cuaderno/core';
import type { Item, Matrix, Page, PdfRect } from '@cuaderno/core';
import { annotationsOn, drawIn, hasAppearance, placeOf } from '../pdf-source/draw-in.js';
import { completeForm, drawFieldsIn, widgetsOn } from '../pdf-source/forms.js';
import { nameOf } from '../pdf-source/values.js';
import { mapFor } from './page-drawing.js';

/** Kinds of annotations that hide what lies under them; the others are marks on words, and small signs. */
const COVERING = [
  ...['Stamp', 'FreeText', 'Square', 'Circle', 'Line', 'PolyLine', 'Polygon', 'Ink', 'Redact'],
  'Watermark',
];

/**
 * Annotations are drawn above a page's own content, and so above what we draw into it. This lays under it what would
 * hide it: fields of a form on each page on which something is written, and the annotations under what is drawn.
 */
export class LayingUnder {
  private completed = false;

  constructor(
    private readonly doc: PDFDocument,
    private readonly ink: 'drawn' | 'annotations' | 'none',
  ) {}

  add(page: Page, target: PDFPage): void {
    const written = this.ink === 'none' ? materialOn(page) : drawnOn(page);
    if (written.length === 0 || annotationsOn(target).length === 0) return;
    if (widgetsOn(target).size > 0) {
      if (!this.completed) completeForm(this.doc);
      this.completed = true;
      drawFieldsIn(this.doc, [target]);
    }
    const drawn = this.ink === 'drawn' ? written : materialOn(page);
    const places = drawn.map((item) => boundsIn(item, mapFor(page)));
    const under = new Set<PDFDict>();
    for (const annotation of annotationsOn(target)) {
      const place = placeOf(annotation);
      if (
        place &&
        COVERING.includes(nameOf(annotation, 'Subtype') ?? '') &&
        hasAppearance(annotation) &&
        // One that is answered to is part of a talk.
        !annotation.has(PDFName.of('IRT')) &&
        places.some((drawing) => meet(drawing, place))
      )
        under.add(annotation);
    }
    drawIn(target, under);
  }
}

/** Where something lies, in user space. */
function boundsIn(item: Item, map: Matrix): PdfRect {
  const { x, y, width, height } = itemBounds(item);
  const a = transform(map, { x, y });
  const b = transform(map, { x: x + width, y: y + height });
  return [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)];
}

function meet(a: PdfRect, b: PdfRect): boolean {
  return a[0] <= b[2] && b[0] <= a[2] && a[1] <= b[3] && b[1] <= a[3];
}
