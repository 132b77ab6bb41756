export * from './messages.js';
export * from './arrival.js';
