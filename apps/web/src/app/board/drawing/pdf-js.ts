import type * as PdfJs from 'pdfjs-dist';

/** Bytes asked for at a time: a page of text, not a whole book. */
const CHUNK = 256 * 1024;

let loading: Promise<typeof PdfJs> | null = null;
/** The one worker that all documents share. */
let worker: PdfJs.PDFWorker | null = null;

/**
 * pdf.js and its worker, loaded once and then kept warm. It is the build that brings what browsers of the last two years
 * lack (`Map.prototype.getOrInsertComputed`, say): one build for all, so that all see what tests have seen.
 */
export function pdfJs(): Promise<typeof PdfJs> {
  loading ??= import('pdfjs-dist/legacy/build/pdf.mjs').then((pdf) => {
    // By its version: a worker of another one that the browser still keeps would refuse every file.
    const address = new URL(`/pdfjs/pdf.worker.min.mjs?${pdf.version}`, location.href);
    pdf.GlobalWorkerOptions.workerPort ??= new Worker(address, { type: 'module' });
    return pdf;
  });
  // What didn't come over the line is asked for again.
  loading.catch(() => (loading = null));
  return loading;
}

/** A PDF being opened; to be destroyed by its owner. */
export type PdfDoc = ReturnType<typeof PdfJs.getDocument>;

/** Opens a PDF: bytes that are here already, or an address from which parts are fetched. */
export async function openPdf(from: { data: ArrayBuffer } | { url: string }): Promise<PdfDoc> {
  const pdf = await pdfJs();
  // Handed over, it is ours: a document that is closed while it loads would take it down for all.
  worker ??= new pdf.PDFWorker({ port: pdf.GlobalWorkerOptions.workerPort! } as never);
  return pdf.getDocument({
    ...from,
    worker,
    rangeChunkSize: CHUNK,
    disableAutoFetch: true,
    disableStream: true,
    isEvalSupported: false,
    // The shipped fonts, not this machine's: a page looks the same everywhere.
    useSystemFonts: false,
    cMapUrl: '/pdfjs/cmaps/',
    standardFontDataUrl: '/pdfjs/standard_fonts/',
    wasmUrl: '/pdfjs/wasm/',
    iccUrl: '/pdfjs/iccs/',
  });
}
