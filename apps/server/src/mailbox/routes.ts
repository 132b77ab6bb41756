import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';

const tags = ['mailbox'];
/** Letters that are listed at most. */
const LISTED = 200;

const LetterShape = z.object({
  id: Id,
  to: z.string(),
  subject: z.string(),
  body: z.string(),
  at: z.number(),
});

/** What would have been sent by mail. */
export const mailboxRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/mailbox',
    {
      schema: {
        tags,
        summary: 'Letters that would have been sent, the newest first',
        response: { 200: z.object({ letters: z.array(LetterShape) }) },
      },
    },
    async ({ tutor }) => ({ letters: await app.mailbox.of(tutor.id, LISTED) }),
  );

  app.post(
    '/mailbox/:letter/remove',
    {
      schema: {
        tags,
        summary: 'Throw a letter away',
        params: z.object({ letter: Id }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      await app.mailbox.remove(tutor.id, params.letter);
      return reply.status(204).send(null);
    },
  );
};
