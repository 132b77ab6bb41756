import { readMigrationFiles } from 'drizzle-orm/migrator';
import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Database } from './plugin.js';

/** Where the database lies as it was before it was brought up to date, in the folder that holds everything. */
const FOLDER = 'before-updates';
/** Copies that are kept. */
const KEPT = 5;

/** Keeps a copy of the database where its tables are about to be changed. */
export async function keepBefore(db: Database, folder: string, migrations: string): Promise<void> {
  const done = await timesDone(db);
  if (done === null) return;
  const last = readMigrationFiles({ migrationsFolder: migrations }).at(-1);
  if (!last || done >= last.folderMillis) return;
  const copies = join(folder, FOLDER);
  await mkdir(copies, { recursive: true });
  const name = `${new Date().toISOString().replaceAll(':', '-')}.db`;
  await db.raw([{ sql: 'VACUUM INTO ?', params: [join(copies, name)] }]);
  for (const old of (await copiesIn(copies)).slice(0, -KEPT)) await rm(join(copies, old));
}

/** Throws all copies away: what was deleted is not to be found in them either. */
export async function dropCopies(folder: string): Promise<void> {
  await rm(join(folder, FOLDER), { recursive: true, force: true });
}

/** Path of the copy that was made last; `null` where there is none. */
export async function newestCopy(folder: string): Promise<string | null> {
  const copies = join(folder, FOLDER);
  const newest = (await copiesIn(copies)).at(-1);
  return newest ? join(copies, newest) : null;
}

async function copiesIn(folder: string): Promise<string[]> {
  const names = await readdir(folder).catch(() => []);
  return names.filter((name) => name.endsWith('.db')).sort();
}

/** By its number, the last change that was made to the tables; `null` for a database that is new. */
async function timesDone(db: Database): Promise<number | null> {
  const ask = async (sql: string): Promise<unknown[][]> =>
    (await db.raw([{ sql, params: [] }]))[0] as unknown[][];
  const there = await ask("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'");
  if (there.length === 0) return null;
  const [row] = await ask('SELECT max(created_at) FROM __drizzle_migrations');
  return Number(row?.[0] ?? 0);
}
