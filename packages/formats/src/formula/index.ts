export * from './formula-error.js';
export * from './set-formula.js';
