import {
  createRecordLink,
  listRecordLinks,
  withdrawRecordLink,
} from '@cuaderno/contract/routes/record-links';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { letterOf } from './letter.js';

/** Links to records, for their tutor. */
export const recordLinkRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listRecordLinks),
    handler: async ({ tutor, params, query }) => {
      const course = await app.courses.one(params.course, tutor.id);
      return { links: await app.recordLinks.of(course.id, query.lesson ?? null) };
    },
  });

  app.route({
    ...served(createRecordLink),
    handler: async (request, reply) => {
      const { tutor, params, body } = request;
      const course = await app.courses.one(params.course, tutor.id);
      const record = body.lesson ? await app.records.one(body.lesson, tutor.id) : null;
      const { lesson, zone, ...wish } = body;
      const link = await app.recordLinks.make(record?.course ?? course.id, lesson, wish);
      if (link.email) {
        const origin = `${request.protocol}://${request.host}`;
        const about = { link, tutor: tutor.name, course: course.name, record, origin, zone };
        await app.mailbox.send(tutor.id, { to: link.email, ...letterOf(about) });
      }
      if (record)
        void app.sharedPages
          .warm(record)
          .catch((error: unknown) =>
            request.log.warn({ err: error }, 'a record was not drawn beforehand'),
          );
      return reply.status(201).send(link);
    },
  });

  app.route({
    ...served(withdrawRecordLink),
    handler: async ({ tutor, params }, reply) => {
      await app.recordLinks.withdraw(params.link, tutor.id);
      return reply.status(204).send(null);
    },
  });
};
