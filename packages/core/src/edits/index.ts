export * from './arrange.js';
export * from './copies.js';
export * from './pages.js';
export * from './selection.js';
export * from './snap.js';
