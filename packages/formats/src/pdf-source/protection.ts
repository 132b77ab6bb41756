import { PDFBool, PDFDict, PDFName } from '@cantoo/pdf-lib';
import type { PDFDocument } from '@cantoo/pdf-lib';

/** What our own files made of a protected one say of it, beside who made it (ISO 32000-1, 14.3.3). */
const MARK = PDFName.of('CuaProtected');

/**
 * Whether the maker of a file that was loaded has forbidden to change, copy or print it (ISO 32000-1, 7.6): then it was
 * encrypted, or was made by us of one that was.
 */
export function wasProtected({ context }: PDFDocument): boolean {
  return context.isDecrypted || infoOf(context)?.lookup(MARK) === PDFBool.True;
}

/** Lets a file say that what it was made of was protected. */
export function markProtected({ context }: PDFDocument): void {
  let info = infoOf(context);
  if (!info) {
    info = context.obj({});
    context.trailerInfo.Info = context.register(info);
  }
  info.set(MARK, PDFBool.True);
}

/** What leaves us is a file by itself. */
export function unmarkProtected({ context }: PDFDocument): void {
  infoOf(context)?.delete(MARK);
}

function infoOf(context: PDFDocument['context']): PDFDict | null {
  const info = context.lookup(context.trailerInfo.Info);
  return info instanceof PDFDict ? info : null;
}
