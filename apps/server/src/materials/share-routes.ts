import {
  listShareReceivers,
  shareFolder,
  takeBackShare,
} from '@cuaderno/contract/routes/materials';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';

/** Whom folders are shared with. */
export const shareRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listShareReceivers),
    handler: async ({ tutor }) => app.accounts.others(tutor.id),
  });

  app.route({
    ...served(shareFolder),
    handler: async ({ tutor, params, body }, reply) => {
      return reply.status(201).send(await app.shares.share(tutor.id, params.folder, body));
    },
  });

  app.route({
    ...served(takeBackShare),
    handler: async ({ tutor, params }, reply) => {
      await app.shares.takeBack(tutor.id, params.share);
      return reply.status(204).send(null);
    },
  });
};
