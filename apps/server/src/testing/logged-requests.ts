import { rmSync } from 'node:fs';
import { buildApp } from '../app.js';
import { testConfig } from '../config.js';

/* Asks for some addresses that have names and tokens in them, and logs as a server does: see `guards.spec.ts`. */
const config = testConfig('logged', { logLevel: 'info' });
const app = await buildApp(config);
for (const url of [
  '/api/shared/a-secret-token',
  '/join/join-me',
  '/api/students/archive.zip?name=Flakstad',
  '/api/records?word=Flakstad',
])
  await app.inject({ url });
await app.inject({
  ...{ method: 'POST', url: '/api/join' },
  payload: { by: { link: 'join-me' }, name: 'Flakstad' },
});
await app.close();
rmSync(config.dataFolder, { recursive: true, force: true });
