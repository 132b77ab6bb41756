export * from './page-svg.js';
