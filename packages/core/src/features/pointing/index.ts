export * from './messages.js';
export * from './pointing.js';
