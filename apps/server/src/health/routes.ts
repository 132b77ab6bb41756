import { readHealth, readLiveness, readReadiness } from '@cuaderno/contract/routes/health';
import { sql } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';

export const healthRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(readHealth),
    handler: () => ({
      status: app.live.keeps ? ('ok' as const) : ('disk-full' as const),
      uncaught: app.uncaught.count,
      lastUncaughtAt: app.uncaught.lastAt,
      upFor: Math.floor(process.uptime()),
    }),
  });

  app.route({
    ...served(readLiveness),
    handler: () => ({ status: 'ok' as const }),
  });

  app.route({
    ...served(readReadiness),
    handler: async () => {
      await app.db.run(sql`select 1`).catch(() => {
        throw new ProblemError('unavailable');
      });
      return { status: 'ok' as const };
    },
  });
};
