export * from './paper.js';
export * from './signature.js';
