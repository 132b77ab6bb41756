export * from './display-list.js';
export * from './ink.js';
export * from './path.js';
