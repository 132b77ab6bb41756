export * from './messages.js';
export * from './person.js';
