export * from './lesson-board.js';
export * from './messages.js';
