export * from './upgrade.js';
