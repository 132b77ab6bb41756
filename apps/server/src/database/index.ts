export { database, openDatabase } from './plugin.js';
export type { Database } from './plugin.js';
