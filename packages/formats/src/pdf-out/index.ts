export * from './record-pdf.js';
