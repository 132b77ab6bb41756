export * from './board-for.js';
export * from './told.js';
