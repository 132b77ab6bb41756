import { keepNote, listNotes } from '@cuaderno/contract/routes/records';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';

export const noteRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listNotes),
    handler: async ({ tutor, params }) => ({
      notes: await app.recordNotes.all(params.lesson, tutor.id),
    }),
  });

  app.route({
    ...served(keepNote),
    handler: async ({ tutor, params, body }, reply) =>
      reply.status(201).send(await app.recordNotes.write(params.lesson, tutor.id, body)),
  });
};
