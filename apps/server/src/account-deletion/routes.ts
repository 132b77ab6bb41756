import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { endSession } from '../accounts/index.js';

export const accountDeletionRoutes: FastifyPluginAsyncZod = async (app) => {
  app.post(
    '/account/delete',
    {
      onRequest: app.tutorOnly,
      schema: {
        tags: ['accounts'],
        summary: 'Delete the account with everything in it: courses, boards, records, files',
        body: z.object({ password: z.string().max(200) }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      await app.accounts.confirm(request.tutor, request.body.password);
      await app.deleteAccount(request.tutor);
      await endSession(request, reply);
      return reply.status(204).send(null);
    },
  );
};
