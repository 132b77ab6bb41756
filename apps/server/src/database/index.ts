export { DatabaseError } from './connection.js';
export { database, DATABASE_FILE, lentDatabase, openDatabase } from './plugin.js';
export { lockFolder } from './folder-lock.js';
export type { Database } from './plugin.js';
export type { Query } from './query.js';
