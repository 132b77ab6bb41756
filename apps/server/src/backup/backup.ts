import { createClient } from '@libsql/client/sqlite3';
import { cp, link, mkdir, mkdtemp, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { create } from 'tar';
import { DATABASE_FILE } from '../database/index.js';
import { StartError } from '../problems/start-error.js';

/** What lies beside the database and has to be kept with it. */
export const KEY_FILE = 'pass.key';
export const FILES_FOLDER = 'files';
/** Where a backup is put together, in the folder that holds everything: there, files are linked and not copied. */
const WORK = 'backup-work-';

/**
 * Writes everything into one file (tar), also while a server is running: what was confirmed before this began is in it.
 * The file is there when it is whole, and not before. Throws `StartError` where there is nothing to be kept.
 * @param told how far it is
 */
export async function backUp(
  folder: string,
  to: string,
  told: (words: string) => void = () => undefined,
): Promise<void> {
  const target = resolve(to);
  if (!(await exists(join(folder, DATABASE_FILE))))
    throw new StartError(`There is no database in ${folder}. Name the folder with CUADERNO_DATA.`);
  for (const name of await readdir(folder))
    if (name.startsWith(WORK)) await rm(join(folder, name), { recursive: true, force: true });
  const work = await mkdtemp(join(folder, WORK));
  try {
    // Files first, then the database, then files that came meanwhile: whatever the database names is there, also if
    // somebody removes it just now.
    told('Collecting files …');
    await linkFiles(folder, work);
    told('Copying the database …');
    await copyDatabase(folder, work);
    await linkFiles(folder, work);
    if (await exists(join(folder, KEY_FILE)))
      await cp(join(folder, KEY_FILE), join(work, KEY_FILE));
    told('Writing …');
    await mkdir(dirname(target), { recursive: true });
    const part = `${target}.part`;
    await create({ file: part, cwd: work, portable: true }, await readdir(work));
    await rename(part, target);
    told(`${target} has everything (${Math.ceil((await stat(target)).size / 1e6)} MB).`);
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

async function copyDatabase(folder: string, work: string): Promise<void> {
  const client = createClient({ url: `file:${join(folder, DATABASE_FILE)}` });
  try {
    await client.execute('PRAGMA busy_timeout = 10000');
    await client.execute({ sql: 'VACUUM INTO ?', args: [join(work, DATABASE_FILE)] });
  } finally {
    client.close();
  }
}

/** Links all stored files: they are named by their content, and never change. */
async function linkFiles(folder: string, work: string): Promise<void> {
  const from = join(folder, FILES_FOLDER);
  for (const group of await readdir(from).catch(() => [])) {
    if (!/^[0-9a-f]{2}$/.test(group)) continue;
    await mkdir(join(work, FILES_FOLDER, group), { recursive: true });
    for (const name of await readdir(join(from, group)))
      await link(join(from, group, name), join(work, FILES_FOLDER, group, name)).catch(
        (error: NodeJS.ErrnoException) => {
          // It is there already, or was removed this moment.
          if (error.code !== 'EEXIST' && error.code !== 'ENOENT') throw error;
        },
      );
  }
}

function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
