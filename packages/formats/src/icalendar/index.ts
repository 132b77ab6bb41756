export * from './read.js';
export * from './write.js';
