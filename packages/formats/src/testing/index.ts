export * from './media.js';
export * from './decks.js';
