export * from './board-pdf.js';
export * from './measure.js';
export * from './separate.js';
export type { FontLoader, FontStyle } from '../pdf-content/text-fonts.js';
