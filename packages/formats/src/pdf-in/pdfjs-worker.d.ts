/** Loaded for what it does to `globalThis.pdfjsWorker`; pdf.js ships no types for it. */
declare module 'pdfjs-dist/legacy/build/pdf.worker.mjs';
