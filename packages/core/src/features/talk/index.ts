export * from './messages.js';
export * from './talk.js';
