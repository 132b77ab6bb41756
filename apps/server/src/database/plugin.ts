import { drizzle } from 'drizzle-orm/sqlite-proxy';
import type { SqliteRemoteDatabase } from 'drizzle-orm/sqlite-proxy';
import { migrate } from 'drizzle-orm/sqlite-proxy/migrator';
import fp from 'fastify-plugin';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { MessagePort } from 'node:worker_threads';
import { connect, Connection } from './connection.js';
import type { Statement } from './worker.js';

declare module 'fastify' {
  interface FastifyInstance {
    db: Database;
  }
}

export interface Database extends SqliteRemoteDatabase {
  /** Statements done all or not at all, for those that Drizzle has no words for. */
  raw(statements: { sql: string; params: unknown[] }[]): Promise<unknown[][]>;
  /** For another thread, which makes a database of it with `lentDatabase`. */
  lend(): MessagePort;
  close(): Promise<void>;
}

const MIGRATIONS = fileURLToPath(new URL('../../migrations', import.meta.url));

/** Opens the database in `folder` and brings its tables up to date. */
export async function openDatabase(folder: string): Promise<Database> {
  await mkdir(folder, { recursive: true });
  const connection = connect(`file:${join(folder, 'cuaderno.db')}`);
  const db = through(connection);
  await migrate(
    db,
    async (queries) => {
      if (queries.length > 0)
        await connection.send(queries.map((sql) => ({ sql, params: [], method: 'run' as const })));
    },
    { migrationsFolder: MIGRATIONS },
  );
  return db;
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
    const db = await openDatabase(folder);
    app.decorate('db', db);
    app.addHook('onClose', () => db.close());
  },
  { name: 'database' },
);
