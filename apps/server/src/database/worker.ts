import { createClient } from '@libsql/client/sqlite3';
import { parentPort, workerData } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import type { InStatement, InValue, ResultSet } from '@libsql/client/sqlite3';

/*
 * The one connection to the database, on a thread of its own: a commit waits for the disk here,
 * and ink goes on moving over there.
 */

export interface Statement {
  readonly sql: string;
  readonly params: unknown[];
  readonly method: 'run' | 'all' | 'values' | 'get';
}

export interface Request {
  readonly id: number;
  /** Done all or not at all, in order. */
  readonly statements: Statement[];
}

/** Another thread may ask too, through this port. */
export interface Lend {
  readonly port: MessagePort;
}

export interface WorkerAnswer {
  readonly id: number;
  readonly rows?: unknown[][];
  readonly error?: string;
}

const client = createClient({ url: (workerData as { url: string }).url, concurrency: 1 });
const ready = (async () => {
  await client.execute('PRAGMA journal_mode = WAL');
  // What was confirmed survives a power cut, not only a killed process.
  await client.execute('PRAGMA synchronous = FULL');
  await client.execute('PRAGMA foreign_keys = ON');
  // What is deleted is overwritten: a student's data is not to be found in the file afterwards.
  await client.execute('PRAGMA secure_delete = ON');
  await client.execute('PRAGMA busy_timeout = 5000');
})();

function rowsOf(result: ResultSet, method: Statement['method']): unknown[] {
  const rows = result.rows.map((row) =>
    Array.from({ length: result.columns.length }, (_, i) => plain(row[i])),
  );
  return method === 'get' ? (rows[0] ?? []) : rows;
}

function plain(value: unknown): unknown {
  return value instanceof ArrayBuffer ? new Uint8Array(value) : value;
}

async function run({ statements }: Request): Promise<unknown[][]> {
  await ready;
  const list: InStatement[] = statements.map(({ sql, params }) => ({
    sql,
    args: params as InValue[],
  }));
  const results =
    list.length === 1 ? [await client.execute(list[0]!)] : await client.batch(list, 'write');
  return results.map((result, i) => rowsOf(result, statements[i]!.method));
}

async function answer(request: Request): Promise<WorkerAnswer> {
  try {
    return { id: request.id, rows: await run(request) };
  } catch (error) {
    return { id: request.id, error: error instanceof Error ? error.message : String(error) };
  }
}

// One at a time and in order: what was asked later must see what was written before.
let last: Promise<void> = Promise.resolve();
const lent = new Set<MessagePort>();

function serve(port: MessagePort): void {
  port.on('message', (message: Request | Lend | 'close') => {
    if (message === 'close') {
      last = last.then(() => {
        client.close();
        for (const other of lent) other.close();
        parentPort!.close();
      });
    } else if ('port' in message) {
      lent.add(message.port.once('close', () => lent.delete(message.port)));
      serve(message.port);
    } else {
      last = last.then(async () => port.postMessage(await answer(message)));
    }
  });
}

serve(parentPort!);
