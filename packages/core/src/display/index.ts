export * from './display-list.js';
export * from './extent.js';
export * from './images.js';
export * from './ink.js';
export * from './path.js';
export * from './path-data.js';
export * from './polyline.js';
export * from './texts.js';
