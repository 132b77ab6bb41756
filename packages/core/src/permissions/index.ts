export * from './actor.js';
export * from './applies.js';
export * from './door.js';
export * from './refusal.js';
export * from './rules.js';
export * from './why.js';
