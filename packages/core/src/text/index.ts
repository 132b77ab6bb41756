export * from './east-asian.js';
export * from './fonts.js';
export * from './layout.js';
export * from './rich-text.js';
export * from './unicode-range.js';
export { oneLine } from './one-line.js';
