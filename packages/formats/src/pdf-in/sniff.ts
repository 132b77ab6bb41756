import { PdfError } from './pdf-error.js';

/** How far from the ends readers look for the marks (ISO 32000-1, annex H: 1024 bytes). */
const REACH = 1024;

function find(bytes: Uint8Array, mark: string): boolean {
  return new TextDecoder('latin1').decode(bytes).includes(mark);
}

/**
 * Throws `PdfError` for what is not a whole PDF, going by its content and never by its name: the
 * header within the first 1024 bytes, the end mark within the last (ISO 32000-1, 7.5.2 and 7.5.5).
 */
export function sniffPdf(bytes: Uint8Array): void {
  if (bytes.length === 0) throw new PdfError('empty');
  if (!find(bytes.subarray(0, REACH), '%PDF-')) throw new PdfError('not-pdf');
  if (!find(bytes.subarray(-REACH), '%%EOF')) throw new PdfError('truncated');
}
