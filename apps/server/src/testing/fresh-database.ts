import { copyFile, mkdir, mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DATABASE_FILE, openDatabase } from '../database/plugin.js';

let made: Promise<string> | undefined;

/** A folder of the system's own with an empty database, made once a process. */
async function make(): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'cuaderno-empty-'));
  await (await openDatabase(folder)).close();
  return folder;
}

/**
 * Lays an empty database with today's tables into a folder: the server that starts there has none to make. How they are
 * made, and brought up to date, has specs of its own.
 */
export async function layFreshDatabase(folder: string): Promise<void> {
  const empty = await (made ??= make());
  await mkdir(folder, { recursive: true });
  await copyFile(join(empty, DATABASE_FILE), join(folder, DATABASE_FILE));
}
