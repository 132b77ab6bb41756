import { PDFDict, PDFName, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { PDFObject, PDFPage } from '@cantoo/pdf-lib';
import type { PdfRect } from '@cuaderno/core';
import { dictOf, dictsIn, nameOf, numberOf, numbersIn, removeFrom, textOf } from './values.js';

/** Bits of `F` that keep an annotation out of sight: hidden, or not to be viewed (ISO 32000-1, table 165). */
export const OUT_OF_SIGHT = 2 | 32;

/** Annotations of a page, as its list has them. */
export function annotationsOn(page: PDFPage): PDFDict[] {
  return dictsIn(page.node.Annots());
}

/** Where an annotation lies, in user space; `null` where it doesn't say so. */
export function placeOf(annotation: PDFDict): PdfRect | null {
  const rect = numbersIn(annotation.lookup(PDFName.of('Rect')), 4);
  if (!rect) return null;
  const [a, b, c, d] = rect as [number, number, number, number];
  return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
}

/** Whether it has a look of its own. */
export function hasAppearance(annotation: PDFDict): boolean {
  return appearanceOf(annotation) !== null;
}

/** Kinds whose words are in their look already. */
const SHOWN = ['Widget', 'FreeText'];

/**
 * Makes annotations part of their page's drawing, above what is drawn and below what is drawn later. They leave the
 * page's list, and what is out of sight or hasn't a look is just gone; but one that has a comment stays for its
 * sake, and isn't seen itself any more.
 */
export function drawIn(page: PDFPage, annotations: ReadonlySet<PDFDict>): void {
  const list = page.node.Annots();
  if (!list || annotations.size === 0) return;
  const { context } = page.node;
  let code = '';
  for (const annotation of dictsIn(list)) {
    if (!annotations.has(annotation) || (numberOf(annotation, 'F') ?? 0) & OUT_OF_SIGHT) continue;
    const form = appearanceOf(annotation);
    const rect = placeOf(annotation);
    const place = form && rect && placement(form.stream, rect);
    if (!place) continue;
    const layer = annotation.get(PDFName.of('OC'));
    if (layer && !form.stream.dict.has(PDFName.of('OC')))
      form.stream.dict.set(PDFName.of('OC'), layer);
    // Some programs leave out what says that it can be drawn.
    form.stream.dict.set(PDFName.of('Type'), PDFName.of('XObject'));
    form.stream.dict.set(PDFName.of('Subtype'), PDFName.of('Form'));
    const name = page.node.newXObject('CuaLook', form.ref);
    code += `q ${place.map((n) => Number(n.toFixed(5))).join(' ')} cm ${name.toString()} Do Q\n`;
  }
  const gone = new Set<PDFDict>();
  for (const annotation of annotations) {
    const shown = SHOWN.includes(nameOf(annotation, 'Subtype') ?? '');
    if (shown || textOf(annotation, 'Contents') === '') gone.add(annotation);
    else
      annotation.set(PDFName.of('AP'), context.obj({ N: context.register(nothing(annotation)) }));
  }
  // What lies in a window of one of them goes along.
  for (const window of windowsOf(list, gone)) gone.add(window);
  removeFrom(list, gone);
  if (code === '') return;
  page.node.normalize();
  page.node.wrapContentStreams(
    context.getPushGraphicsStateContentStream(),
    context.getPopGraphicsStateContentStream(),
  );
  page.node.addContentStream(context.register(context.stream(code)));
}

/** A look of which nothing is seen. */
function nothing(annotation: PDFDict): PDFStream {
  const [x0, y0, x1, y1] = placeOf(annotation) ?? [0, 0, 0, 0];
  const box = [0, 0, x1 - x0, y1 - y0];
  return annotation.context.stream('', { Type: 'XObject', Subtype: 'Form', BBox: box });
}

/** Windows (`Popup`) of these annotations. */
export function windowsOf(list: PDFObject, of: ReadonlySet<PDFDict>): Set<PDFDict> {
  return new Set(
    dictsIn(list).filter((annotation) => {
      const parent =
        nameOf(annotation, 'Subtype') === 'Popup' ? dictOf(annotation, 'Parent') : null;
      return parent !== null && of.has(parent);
    }),
  );
}

/** The look that an annotation has as it stands; of a box to tick, that of its state. */
function appearanceOf(annotation: PDFDict): { stream: PDFStream; ref: PDFRef } | null {
  const looks = dictOf(annotation, 'AP');
  if (!looks) return null;
  let [dict, key] = [looks, PDFName.of('N')];
  const normal = dict.lookup(key);
  if (normal instanceof PDFDict && !(normal instanceof PDFStream)) {
    [dict, key] = [normal, PDFName.of(nameOf(annotation, 'AS') ?? 'Off')];
  }
  const stream = dict.lookup(key);
  if (!(stream instanceof PDFStream)) return null;
  const at = dict.get(key);
  return { stream, ref: at instanceof PDFRef ? at : dict.context.register(stream) };
}

/** The matrix that puts a look into its rectangle (12.5.5, algorithm 8.1); `null` where it has no extent. */
function placement({ dict }: PDFStream, [x0, y0, x1, y1]: PdfRect): number[] | null {
  const box = numbersIn(dict.lookup(PDFName.of('BBox')), 4) ?? [0, 0, x1 - x0, y1 - y0];
  const [a, b, c, d, e, f] = (numbersIn(dict.lookup(PDFName.of('Matrix')), 6) ?? [
    ...[1, 0, 0, 1, 0, 0],
  ]) as [number, number, number, number, number, number];
  const corners = [0, 2].flatMap((i) =>
    [1, 3].map((j) => {
      const [x, y] = [box[i]!, box[j]!];
      return [a * x + c * y + e, b * x + d * y + f] as const;
    }),
  );
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  const [left, low] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - left, Math.max(...ys) - low];
  if (!(width > 0 && height > 0)) return null;
  const [sx, sy] = [(x1 - x0) / width, (y1 - y0) / height];
  return [sx, 0, 0, sy, x0 - left * sx, y0 - low * sy];
}
