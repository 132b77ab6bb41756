export * from './east-asian.js';
export * from './layout.js';
export * from './rich-text.js';
export * from './unicode-range.js';
