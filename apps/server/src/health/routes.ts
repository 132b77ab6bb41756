import { sql } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { ProblemError } from '../problems/index.js';

const Well = z.object({ status: z.literal('ok') });

export const healthRoutes: FastifyPluginAsyncZod = async (app) => {
  app.get(
    '/health/live',
    { schema: { tags: ['health'], summary: 'The process runs', response: { 200: Well } } },
    () => ({ status: 'ok' as const }),
  );

  app.get(
    '/health/ready',
    { schema: { tags: ['health'], summary: 'The database answers', response: { 200: Well } } },
    async () => {
      await app.db.run(sql`select 1`).catch(() => {
        throw new ProblemError('unavailable');
      });
      return { status: 'ok' as const };
    },
  );
};
