export * from './audience.js';
export * from './board-for.js';
export * from './files.js';
