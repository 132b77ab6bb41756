import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { ShareShape } from '@cuaderno/contract/materials';

const tags = ['materials'];

/** Whom folders are shared with. */
export const shareRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/materials/tutors',
    {
      schema: {
        tags,
        summary: 'Other tutors, with whom folders can be shared',
        response: { 200: z.array(z.object({ id: Id, name: z.string() })) },
      },
    },
    async ({ tutor }) => app.accounts.others(tutor.id),
  );

  app.post(
    '/materials/folders/:folder/share',
    {
      schema: {
        tags,
        summary:
          'Share a folder with a tutor, who may use and copy what is in it, or with the students of a course, who may look',
        params: z.object({ folder: Id }),
        body: z.object({ kind: z.enum(['tutor', 'course']), id: Id }),
        response: { 201: ShareShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      return reply.status(201).send(await app.shares.share(tutor.id, params.folder, body));
    },
  );

  app.post(
    '/materials/shares/:share/take-back',
    {
      schema: {
        tags,
        summary: 'Take a share back; it holds at once',
        params: z.object({ share: Id }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      await app.shares.takeBack(tutor.id, params.share);
      return reply.status(204).send(null);
    },
  );
};
