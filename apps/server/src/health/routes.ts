import { sql } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { ProblemError } from '../problems/index.js';

const tags = ['health'];
const Well = z.object({ status: z.literal('ok') });

export const healthRoutes: FastifyPluginAsyncZod = async (app) => {
  app.get(
    '/health',
    {
      schema: {
        tags,
        summary:
          'How the server is: whether it keeps what is written, and errors that nobody expected',
        response: {
          200: z.object({
            status: z.enum(['ok', 'disk-full']),
            /** Since the server was started. */
            uncaught: z.number().int().min(0),
            /** When there was one last, in ms since 1970. */
            lastUncaughtAt: z.number().nullable(),
            /** For how long it has been running, in seconds. */
            upFor: z.number().int().min(0),
          }),
        },
      },
    },
    () => ({
      status: app.live.keeps ? ('ok' as const) : ('disk-full' as const),
      uncaught: app.uncaught.count,
      lastUncaughtAt: app.uncaught.lastAt,
      upFor: Math.floor(process.uptime()),
    }),
  );

  app.get(
    '/health/live',
    { schema: { tags, summary: 'The process runs', response: { 200: Well } } },
    () => ({ status: 'ok' as const }),
  );

  app.get(
    '/health/ready',
    { schema: { tags, summary: 'The database answers', response: { 200: Well } } },
    async () => {
      await app.db.run(sql`select 1`).catch(() => {
        throw new ProblemError('unavailable');
      });
      return { status: 'ok' as const };
    },
  );
};
