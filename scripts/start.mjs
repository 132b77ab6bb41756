/* Serves Cuaderno without demo data: the first visit makes the tutor's account. */
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { buildServer, buildSite, install, ROOT } from './steps.mjs';

install();
buildServer();
buildSite();
process.env.NODE_ENV ??= 'production';
process.env.CUADERNO_DATA ??= join(ROOT, 'data', 'own');
const port = (process.env.PORT ??= '8080');
console.log(`Cuaderno: http://localhost:${port}`);
await import(pathToFileURL(join(ROOT, 'apps/server/dist/main.js')).href);
