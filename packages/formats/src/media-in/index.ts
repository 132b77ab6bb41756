export * from './media-error.js';
export * from './read-media.js';
export * from './sniff.js';
