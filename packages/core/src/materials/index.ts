export * from './asset.js';
export * from './choose.js';
export * from './tree.js';
