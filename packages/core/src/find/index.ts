export * from './find.js';
export * from './tokens.js';
