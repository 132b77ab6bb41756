/* Runs a command of the server: npm run backup, restore or account. The folder is that of `npm start` unless it is named. */
import { join } from 'node:path';
import { buildServer, install, ROOT } from './steps.mjs';

install();
buildServer();
process.env.CUADERNO_DATA ??= join(ROOT, 'data', 'own');
const [script, ...words] = process.argv.slice(2);
process.argv.splice(2, process.argv.length, ...words);
await import(join(ROOT, 'apps/server/dist', script));
