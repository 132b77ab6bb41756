/** Made-up data for tests and benchmarks of all packages; no part of the application. */
export * from './handwriting.js';
export * from './boards.js';
export * from './world.js';
