export * from './display-list.js';
export * from './ink.js';
export * from './paper.js';
export * from './path.js';
export * from './thing.js';
export * from './media.js';
export * from './path-data.js';
