export * from './description.js';
export * from './messages.js';
export * from './microphone.js';
