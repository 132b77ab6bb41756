import { readConfig } from '../config.js';
import { StartError } from '../problems/start-error.js';
import { backUp } from './backup.js';
import { restore } from './restore.js';

/* npm run backup -- FILE, and npm run restore -- FILE: everything in one file, and back. */

const say = (words: string): void => void process.stdout.write(`${words}\n`);

async function run([what, file]: readonly string[]): Promise<void> {
  const { dataFolder } = readConfig(process.env, null);
  if (!file) throw new StartError(`Name the file: npm run ${what ?? 'backup'} -- FILE`);
  if (what === 'backup') return backUp(dataFolder, file, say);
  const before = await restore(dataFolder, file, say);
  say(`${dataFolder} is as it was when ${file} was made.`);
  if (before) say(`What was there before lies in ${before}; remove it when you don’t need it.`);
}

run(process.argv.slice(2)).catch((error: unknown) => {
  const known = error instanceof StartError || (error as NodeJS.ErrnoException).code;
  process.stderr.write(`${known ? (error as Error).message : (error as Error).stack}\n`);
  process.exitCode = 1;
});
