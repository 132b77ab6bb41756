export * from './messages.js';
export * from './view.js';
