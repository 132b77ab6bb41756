export * from './messages.js';
export * from './waiting.js';
