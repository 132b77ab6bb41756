export * from './actor.js';
export * from './door.js';
export * from './refusal.js';
