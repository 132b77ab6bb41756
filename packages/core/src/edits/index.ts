export * from './arrange.js';
export * from './copies.js';
export * from './crop.js';
export * from './pages.js';
export * from './selection.js';
export * from './snap.js';
export * from './tidy.js';
export * from './wipe.js';
