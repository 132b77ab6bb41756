export * from './draw.js';
export * from './inspect.js';
export * from './pdf-error.js';
export * from './sniff.js';
export * from './words.js';
export * from './missing-fonts.js';
