export * from './frame.js';
export * from './thing.js';
