/* npm run bench -- NAME: measures one figure against a baseline in the same run. */
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import {
  buildServer,
  buildSite,
  compile,
  debian,
  install,
  OFFICE,
  OFFICE_LETTERS,
  ROOT,
} from './steps.mjs';

install();
buildServer();
buildSite();
compile('bench');
debian([
  { command: 'chromium', name: 'chromium' },
  { command: 'ffprobe', name: 'ffmpeg' },
  OFFICE,
  OFFICE_LETTERS,
]);

const folder = join(ROOT, 'bench/dist');
const names = readdirSync(folder)
  .filter((name) => name.endsWith('.bench.js'))
  .map((name) => name.replace('.bench.js', ''));
const wanted = process.argv[2];
if (!wanted || !existsSync(join(folder, `${wanted}.bench.js`))) {
  console.error(`Which one? ${names.join(', ')}`);
  process.exit(2);
}
const { measure } = await import(pathToFileURL(join(folder, `${wanted}.bench.js`)).href);
const results = [await measure()].flat();
for (const result of results) console.log(JSON.stringify(result));
process.exit(results.every(({ pass }) => pass) ? 0 : 1);
