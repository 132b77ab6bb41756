import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { buildApp } from './app.js';
import { readConfig } from './config.js';
import type { Config } from './config.js';
import { StartError } from './problems/start-error.js';

const SITE = fileURLToPath(new URL('../../web/dist/browser', import.meta.url));

/** Anyone who starts the server reads a sentence, and not where in the code it was thrown. */
function giveUp(error: unknown): never {
  const known = error instanceof StartError || (error as NodeJS.ErrnoException).code;
  process.stderr.write(`${known ? (error as Error).message : (error as Error).stack}\n`);
  process.exit(1);
}

function settings(): Config {
  try {
    return readConfig(process.env, existsSync(SITE) ? SITE : null);
  } catch (error) {
    return giveUp(error);
  }
}

const config = settings();
const app = await buildApp(config).catch(giveUp);
app.uncaught.watch(process);

let closing = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => {
    if (closing) return;
    closing = true;
    app.log.info('finishing what was begun');
    app.close().then(
      () => process.exit(0),
      (error: unknown) => {
        app.uncaught.caught(error, 'closing');
        process.exit(1);
      },
    );
  });
}

await app.listen({ host: config.host, port: config.port }).catch((error: unknown) => {
  const { code } = error as NodeJS.ErrnoException;
  giveUp(
    code === 'EADDRINUSE'
      ? new StartError(
          `Something else listens on port ${config.port} already. Stop that, or name another port with PORT.`,
        )
      : error,
  );
});
