import { deleteAccount } from '@cuaderno/contract/routes/accounts';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { endSession } from '../accounts/index.js';
import { served } from '../contract/served.js';

export const accountDeletionRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(deleteAccount),
    handler: async (request, reply) => {
      await app.accounts.confirm(request.tutor, request.body.password);
      await app.deleteAccount(request.tutor);
      await endSession(request, reply);
      return reply.status(204).send(null);
    },
  });
};
