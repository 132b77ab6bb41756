export * from './media.js';
export * from './decks.js';
export * from './unembedded-pdf.js';
