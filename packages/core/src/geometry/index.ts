export * from './frame.js';
export * from './matrix.js';
export * from './pdf-page.js';
export * from './point.js';
export * from './polygon.js';
export * from './rect.js';
export * from './thin.js';
