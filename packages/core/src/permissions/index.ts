export * from './actor.js';
export * from './refusal.js';
