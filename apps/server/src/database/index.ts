export { database, lentDatabase, openDatabase } from './plugin.js';
export type { Database } from './plugin.js';
