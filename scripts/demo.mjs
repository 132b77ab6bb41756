/* Installs, builds, fills the demo in and serves it. With --reset the demo starts over. */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import {
  buildServer,
  buildSite,
  debian,
  install,
  OFFICE,
  OFFICE_LETTERS,
  ROOT,
  run,
} from './steps.mjs';

install();
debian([OFFICE, OFFICE_LETTERS], { optional: true });
buildServer();
buildSite();
const data = (process.env.CUADERNO_DATA ??= join(ROOT, 'data', 'demo'));
if (process.argv.includes('--reset')) rmSync(data, { recursive: true, force: true });
process.env.CUADERNO_DEMO = '1';
process.env.LOG_LEVEL ??= 'warn';
const port = (process.env.PORT ??= '8080');
const { stdout } = run('node', ['apps/server/dist/demo/main.js'], { quiet: true });
await import(pathToFileURL(join(ROOT, 'apps/server/dist/main.js')).href);
console.log(`
Cuaderno is ready.
  Tutor:    http://localhost:${port}/        (sign in with one click as Maren Solheim)
  Student:  http://localhost:${port}${stdout}   (lets in while Maren’s sky-watching lesson is open)
Stop with Ctrl+C. What is done here is kept; npm run demo -- --reset starts over.
`);
