export * from './deck.js';
export * from './fonts-used.js';
export { points } from './odp.js';
export { EMU } from './pptx.js';
export * from './read-deck.js';
export * from './report.js';
export * from './same-font.js';
export * from './without-media.js';
export * from './without-outside.js';
