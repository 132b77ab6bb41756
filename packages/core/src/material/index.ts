export * from './figure.js';
export * from './frame.js';
export * from './hit.js';
export * from './thing.js';
