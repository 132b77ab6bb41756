export * from './json-schema.js';
export * from './read.js';
export * from './shape.js';
export * from './write.js';
