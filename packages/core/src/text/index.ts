export * from './layout.js';
export * from './rich-text.js';
