export * from './find.js';
