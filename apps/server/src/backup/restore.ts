import { createClient } from '@libsql/client/sqlite3';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, mkdtemp, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { extract, list } from 'tar';
import { DATABASE_FILE, lockFolder } from '../database/index.js';
import { StartError } from '../problems/start-error.js';
import { FILES_FOLDER, KEY_FILE } from './backup.js';

/** What a backup has in it; nothing else is taken out of one. */
const PARTS = new RegExp(
  `^(${DATABASE_FILE.replace('.', '\\.')}|${KEY_FILE.replace('.', '\\.')}|${FILES_FOLDER}(/[0-9a-f]{2}(/[0-9a-f]{64})?)?)/?$`,
);

/**
 * Puts back what `backUp` has written. It is looked at first: nothing is changed where the file is not whole. What was
 * there before is kept beside it. Throws `StartError`.
 * @returns where that lies now; `null` where nothing was there
 */
export async function restore(
  folder: string,
  from: string,
  told: (words: string) => void = () => undefined,
): Promise<string | null> {
  if (!(await stat(from).catch(() => null))) throw new StartError(`There is no file ${from}.`);
  await mkdir(folder, { recursive: true });
  const unlock = await lockFolder(folder);
  const work = await mkdtemp(join(folder, 'restore-work-'));
  try {
    told('Unpacking …');
    await unpack(from, work);
    told('Checking …');
    await check(work);
    const before = join(folder, `before-restore-${new Date().toISOString().replaceAll(':', '-')}`);
    let kept = false;
    for (const name of [
      DATABASE_FILE,
      `${DATABASE_FILE}-wal`,
      `${DATABASE_FILE}-shm`,
      KEY_FILE,
      FILES_FOLDER,
    ]) {
      if (await stat(join(folder, name)).catch(() => null)) {
        await mkdir(before, { recursive: true });
        await rename(join(folder, name), join(before, name));
        kept = true;
      }
      if (await stat(join(work, name)).catch(() => null))
        await rename(join(work, name), join(folder, name));
    }
    return kept ? before : null;
  } finally {
    await rm(work, { recursive: true, force: true });
    unlock();
  }
}

async function unpack(from: string, work: string): Promise<void> {
  const odd: string[] = [];
  try {
    await list({
      file: from,
      strict: true,
      onReadEntry: ({ path }) => PARTS.test(path) || odd.push(path),
    });
    if (odd.length > 0) throw new Error(odd[0]);
    await extract({ file: from, cwd: work, strict: true, filter: (path) => PARTS.test(path) });
  } catch {
    throw new StartError(`${from} is no backup of Cuaderno, or is cut off. Nothing was changed.`);
  }
}

/** Whether all is there, as it was: the database can be read, and each file has the content that it is named by. */
async function check(work: string): Promise<void> {
  const client = createClient({ url: `file:${join(work, DATABASE_FILE)}` });
  let named: string[];
  try {
    const { rows } = await client.execute('PRAGMA quick_check(1)');
    if (rows[0]?.[0] !== 'ok') throw new Error(String(rows[0]?.[0]));
    named = (await client.execute('SELECT hash FROM files')).rows.map((row) => String(row[0]));
  } catch {
    throw new StartError(
      'The database in this backup is damaged. Nothing was changed; try an older backup.',
    );
  } finally {
    client.close();
  }
  for (const group of await readdir(join(work, FILES_FOLDER)).catch(() => []))
    for (const name of await readdir(join(work, FILES_FOLDER, group)))
      if ((await hashOf(join(work, FILES_FOLDER, group, name))) !== name)
        throw new StartError(
          `The file ${name} in this backup is damaged. Nothing was changed; try an older backup.`,
        );
  for (const hash of named)
    if (!(await stat(join(work, FILES_FOLDER, hash.slice(0, 2), hash)).catch(() => null)))
      throw new StartError(
        `The file ${hash} is missing in this backup. Nothing was changed; try an older backup.`,
      );
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) hash.update(chunk);
  return hash.digest('hex');
}
