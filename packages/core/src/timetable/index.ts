export * from './move-series.js';
export * from './occurrences.js';
export * from './plan.js';
export * from './rule.js';
