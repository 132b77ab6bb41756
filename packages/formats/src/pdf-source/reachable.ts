import { PDFArray, PDFDict, PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { PDFContext, PDFObject } from '@cantoo/pdf-lib';

/** Drops every object that nothing leads to any more, so that what was taken out isn't in the file that is saved. */
export function dropUnreachable(context: PDFContext): void {
  const seen = new Set<PDFRef>();
  const { Root, Info, Encrypt, ID } = context.trailerInfo;
  const waiting: (PDFObject | undefined)[] = [Root, Info, Encrypt, ID];
  for (let object = waiting.pop(); waiting.length > 0 || object; object = waiting.pop()) {
    if (object instanceof PDFRef) {
      if (seen.has(object)) continue;
      seen.add(object);
      waiting.push(context.lookup(object));
    } else if (object instanceof PDFArray) {
      waiting.push(...object.asArray());
    } else if (object instanceof PDFDict) {
      waiting.push(...object.values());
    } else if (object instanceof PDFStream) {
      waiting.push(object.dict);
    }
  }
  for (const [ref] of context.enumerateIndirectObjects()) if (!seen.has(ref)) context.delete(ref);
}
