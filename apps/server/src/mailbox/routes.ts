import { listLetters, removeLetter } from '@cuaderno/contract/routes/mailbox';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';

/** Letters that are listed at most. */
const LISTED = 200;
/** What would have been sent by mail. */
export const mailboxRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listLetters),
    handler: async ({ tutor }) => ({ letters: await app.mailbox.of(tutor.id, LISTED) }),
  });

  app.route({
    ...served(removeLetter),
    handler: async ({ tutor, params }, reply) => {
      await app.mailbox.remove(tutor.id, params.letter);
      return reply.status(204).send(null);
    },
  });
};
