export * from './formula-words.js';
