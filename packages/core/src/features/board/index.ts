export * from './messages.js';
export * from './wanted.js';
