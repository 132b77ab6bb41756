export * from './appendix.js';
