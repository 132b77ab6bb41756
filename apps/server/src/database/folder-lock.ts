import { createClient } from '@libsql/client/sqlite3';
import { join } from 'node:path';
import { StartError } from '../problems/start-error.js';

/**
 * Keeps a second process out of the folder that holds everything: two servers would give out the same places in the
 * same logs. What locks is a transaction that is never ended, so that the machine lifts it whenever this process is gone,
 * however it went. Throws `StartError` where another has it.
 * @returns what lifts it
 */
export async function lockFolder(folder: string): Promise<() => void> {
  const client = createClient({ url: `file:${join(folder, 'in-use.db')}`, concurrency: 1 });
  try {
    const transaction = await client.transaction('write');
    return () => {
      transaction.close();
      client.close();
    };
  } catch (error) {
    client.close();
    if (!/SQLITE_BUSY|locked/.test(String(error))) throw error;
    throw new StartError(
      `Another Cuaderno is using the folder ${folder}. Stop that one first, or name another folder with CUADERNO_DATA.`,
    );
  }
}
