export * from './entries.js';
