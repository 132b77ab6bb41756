import type { FastifyInstance } from 'fastify';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { buildApp } from '../app.js';
import { readConfig } from '../config.js';
import { layFreshDatabase } from './fresh-database.js';
import { SharedWorkers } from './shared-workers.js';

/*
 * Many servers in one process, for stories: each has a port and a data folder of its own, and the code of all is
 * loaded once. It is told what to do by the process that forked it, and answers with the port.
 */

export type HostOrder =
  | { readonly kind: 'start'; readonly port: number; readonly folder: string }
  | { readonly kind: 'close'; readonly port: number };
export type HostAnswer = { readonly port: number; readonly problem: string | null };

const SITE = fileURLToPath(new URL('../../../web/dist/browser', import.meta.url));
const apps = new Map<number, FastifyInstance>();
const workers = new SharedWorkers();

async function carryOut(order: HostOrder): Promise<void> {
  const { port } = order;
  if (order.kind === 'close') {
    const app = apps.get(port);
    apps.delete(port);
    app?.server.closeAllConnections();
    return app?.close();
  }
  const env = {
    ...process.env,
    ...{ CUADERNO_DATA: order.folder, PORT: String(port), LOG_LEVEL: 'error' },
  };
  await layFreshDatabase(order.folder);
  const config = readConfig(env, existsSync(SITE) ? SITE : null);
  const app = await buildApp({ ...config, workers, passwordCost: 2 ** 10 });
  await app.listen({ host: config.host, port });
  apps.set(port, app);
}

process.on('message', (order: HostOrder) => {
  const answer = (problem: string | null): unknown =>
    process.send?.({ port: order.port, problem } satisfies HostAnswer);
  carryOut(order).then(
    () => answer(null),
    (error: unknown) => answer(String((error as Error).stack)),
  );
});
// The process that forked it is gone.
process.on('disconnect', () => process.exit(0));
