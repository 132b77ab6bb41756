export * from './captions.js';
export * from './messages.js';
