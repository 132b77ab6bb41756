import { drizzle } from 'drizzle-orm/sqlite-proxy';
import type { SqliteRemoteDatabase } from 'drizzle-orm/sqlite-proxy';
import { migrate } from 'drizzle-orm/sqlite-proxy/migrator';
import fp from 'fastify-plugin';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { StartError } from '../problems/start-error.js';
import { connect, Connection } from './connection.js';
import { keepBefore, newestCopy } from './copies.js';
import { lockFolder } from './folder-lock.js';
import type { Query } from './query.js';
import type { Statement } from './worker.js';

declare module 'fastify' {
  interface FastifyInstance {
    db: Database;
  }
}

export interface Database extends SqliteRemoteDatabase {
  /** Statements done all or not at all, for those that Drizzle has no words for. */
  raw(queries: readonly Query[]): Promise<unknown[][]>;
  /** For another thread, which makes a database of it with `lentDatabase`. */
  lend(): MessagePort;
  close(): Promise<void>;
}

const MIGRATIONS = fileURLToPath(new URL('../../migrations', import.meta.url));

/** The file of the database, in the folder that holds everything. */
export const DATABASE_FILE = 'cuaderno.db';

/**
 * Opens the database in `folder` and brings its tables up to date; what was there before that is kept beside it.
 * Throws `StartError` where it can't be read.
 */
export async function openDatabase(folder: string): Promise<Database> {
  await mkdir(folder, { recursive: true });
  const connection = connect(`file:${join(folder, DATABASE_FILE)}`);
  const db = through(connection);
  try {
    await keepBefore(db, folder, MIGRATIONS);
    await migrate(
      db,
      async (queries) => {
        if (queries.length > 0)
          await connection.send(
            queries.map((sql) => ({ sql, params: [], method: 'run' as const })),
          );
      },
      { migrationsFolder: MIGRATIONS },
    );
  } catch (error) {
    await db.close();
    throw isDamaged(error) ? new StartError(await damaged(folder)) : error;
  }
  return db;
}

/** Whether the file itself is at fault, and not what was asked of it. */
function isDamaged(error: unknown): boolean {
  const texts = [error, (error as { cause?: unknown }).cause].map(String).join(' ');
  return /SQLITE_(NOTADB|CORRUPT)|not a database|malformed/.test(texts);
}

async function damaged(folder: string): Promise<string> {
  const newest = await newestCopy(folder);
  return [
    `The database ${join(folder, DATABASE_FILE)} is damaged and can’t be read.`,
    'Restore your last backup with: npm run restore -- FILE.',
    newest ? `A copy from before the last update lies in ${newest}.` : '',
    'Check the disk of this machine before you go on.',
  ]
    .filter(Boolean)
    .join(' ');
}

/** The database of another thread, which lent this port. */
export function lentDatabase(port: MessagePort): Database {
  return through(new Connection(port));
}

function through(connection: Connection): Database {
  const send = async (list: Statement[]) => {
    const results = await connection.send(list);
    return results.map((rows) => ({ rows: rows as unknown[] }));
  };
  const db = drizzle(
    async (sql, params, method) => (await send([{ sql, params, method }]))[0]!,
    (list) => send(list),
  );
  return Object.assign(db, {
    raw: (list: { sql: string; params: unknown[] }[]) =>
      connection.send(list.map((statement) => ({ ...statement, method: 'values' as const }))),
    lend: () => connection.lend(),
    close: () => connection.close(),
  });
}

export const database = fp(
  async (app, { folder }: { folder: string }) => {
    await mkdir(folder, { recursive: true });
    const unlock = await lockFolder(folder);
    try {
      const db = await openDatabase(folder);
      app.decorate('db', db);
      app.addHook('onClose', async () => {
        await db.close();
        unlock();
      });
    } catch (error) {
      unlock();
      throw error;
    }
  },
  { name: 'database' },
);
