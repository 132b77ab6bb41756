export * from './record-pdf.js';
export * from './separate.js';
