export * from './entry.js';
export * from './history.js';
export * from './replica.js';
export * from './sequencer.js';
export * from './take-out.js';
