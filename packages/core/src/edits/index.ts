export * from './copies.js';
export * from './pages.js';
