import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { PDFContext, PDFObject } from '@cantoo/pdf-lib';

/**
 * A PDF without the sounds and films that lie in it (screen annotations, ISO 32000-1, 12.5.6.18): those
 * are laid on the pages as items of their own, and must not be had by anyone who may only see the page.
 */
export async function withoutMedia(pdf: Uint8Array): Promise<Uint8Array> {
  const doc = await PDFDocument.load(pdf, { updateMetadata: false });
  const { context } = doc;
  let found = false;
  for (const { node } of doc.getPages()) {
    const annotations = node.Annots();
    if (!annotations) continue;
    for (let i = annotations.size() - 1; i >= 0; i--) {
      const entry = annotations.get(i);
      const annotation = context.lookup(entry);
      if (!(annotation instanceof PDFDict) || !isScreen(annotation)) continue;
      annotations.remove(i);
      if (entry instanceof PDFRef) context.delete(entry);
      forget(annotation, context);
      found = true;
    }
  }
  return found ? doc.save({ objectsPerTick: Infinity }) : pdf;
}

function isScreen(annotation: PDFDict): boolean {
  return annotation.lookupMaybe(PDFName.of('Subtype'), PDFName)?.decodeText() === 'Screen';
}

/** What belongs to the page, and stays. */
const ABOVE = ['P', 'Parent'].map((name) => PDFName.of(name));

/** Takes everything that an object names out of the file. */
function forget(object: PDFObject | undefined, context: PDFContext): void {
  const dict = object instanceof PDFStream ? object.dict : object;
  const below =
    dict instanceof PDFDict
      ? dict.entries().flatMap(([key, value]) => (ABOVE.includes(key) ? [] : [value]))
      : dict instanceof PDFArray
        ? dict.asArray()
        : [];
  for (const value of below) {
    if (!(value instanceof PDFRef)) {
      forget(value, context);
      continue;
    }
    const named = context.lookup(value);
    if (!named || isPage(named)) continue;
    context.delete(value);
    forget(named, context);
  }
}

function isPage(object: PDFObject): boolean {
  return (
    object instanceof PDFDict &&
    object.lookupMaybe(PDFName.of('Type'), PDFName)?.decodeText() === 'Page'
  );
}
