export * from './names.js';
