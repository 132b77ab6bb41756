export * from './rich-text.js';
