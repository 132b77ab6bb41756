export * from './media.js';
