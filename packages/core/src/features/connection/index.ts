export * from './messages.js';
export * from './close-codes.js';
