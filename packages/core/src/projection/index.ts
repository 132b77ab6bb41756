export * from './board-for.js';
export * from './told.js';
export * from './files.js';
