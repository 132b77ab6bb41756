export * from './board-for.js';
export * from './files.js';
