export * from './versions.js';
