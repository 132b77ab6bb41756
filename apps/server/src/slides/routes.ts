import type { ReportShape } from '@cuaderno/contract/routes/imports';
import {
  cancelImport,
  markReportSeen,
  prepareImport,
  readImport,
  readImportReport,
} from '@cuaderno/contract/routes/imports';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type * as z from 'zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';

export const slideRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(prepareImport),
    handler: async (_request, reply) => {
      app.office.prepare();
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(readImport),
    handler: async ({ tutor, params }) => {
      const state = app.importQueue.state(params.job, tutor.id);
      if (!state) throw new ProblemError('not-found');
      return state;
    },
  });

  app.route({
    ...served(cancelImport),
    handler: async ({ tutor, params }, reply) => {
      if (!app.importQueue.cancel(params.job, tutor.id)) throw new ProblemError('not-found');
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(readImportReport),
    handler: async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      return (await app.reports.of(board.id)) as z.infer<typeof ReportShape> | null;
    },
  });

  app.route({
    ...served(markReportSeen),
    handler: async ({ tutor, params }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      await app.reports.seen(board.id);
      return reply.status(204).send(null);
    },
  });
};
