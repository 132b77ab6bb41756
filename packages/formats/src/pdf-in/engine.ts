/*
 * pdf.js for Node, whole: its worker's half is loaded with it, so that the first file needn't wait
 * for that. Its polyfills put an `Array.prototype.push` of their own in place on Node 20, for a
 * corner case (an empty push on an array that can't grow), and so make every push in the process
 * ten times as slow: the tree of a 300-page file took 130 ms to read in place of 40. The order of
 * these imports matters.
 */
import { restorePush } from './native-push.js';
import 'pdfjs-dist/legacy/build/pdf.worker.mjs';
import { getDocument, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';

restorePush();

const { pathname } = new URL('./', import.meta.resolve('pdfjs-dist/package.json'));
const folder = decodeURIComponent(pathname);

/** Where it finds what it needs besides: character maps, fonts, decoders. */
export const RESOURCES = {
  cMapUrl: `${folder}cmaps/`,
  standardFontDataUrl: `${folder}standard_fonts/`,
  wasmUrl: `${folder}wasm/`,
  iccUrl: `${folder}iccs/`,
} as const;

export { getDocument, VerbosityLevel };
export type { PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
