export * from './pages.js';
