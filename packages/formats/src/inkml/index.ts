export * from './place.js';
export * from './read.js';
export * from './write.js';
