import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { buildApp } from './app.js';
import { readConfig } from './config.js';

const SITE = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));

const config = readConfig(process.env, existsSync(SITE) ? SITE : null);
const app = await buildApp(config);

let closing = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    if (closing) return;
    closing = true;
    app.log.info('finishing what was begun');
    void app.close().then(() => process.exit(0));
  });
}

await app.listen({ host: config.host, port: config.port });
