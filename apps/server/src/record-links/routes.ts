import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { Zone } from '@cuaderno/contract/time-zone';
import { letterOf } from './letter.js';
import { LinkWish, RecordLink } from '@cuaderno/contract/record-links';

const tags = ['record-links'];

/** Links to records, for their tutor. */
export const recordLinkRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/courses/:course/record-links',
    {
      schema: {
        tags,
        summary: 'Links by which records of a course are seen, and every opening of them',
        params: z.object({ course: Id }),
        querystring: z.object({ lesson: Id.optional() }),
        response: { 200: z.object({ links: z.array(RecordLink) }) },
      },
    },
    async ({ tutor, params, query }) => {
      const course = await app.courses.one(params.course, tutor.id);
      return { links: await app.recordLinks.of(course.id, query.lesson ?? null) };
    },
  );

  app.post(
    '/courses/:course/record-links',
    {
      schema: {
        tags,
        summary:
          'Make a link to one record, or to all of a course; with an address, it is sent there',
        params: z.object({ course: Id }),
        body: LinkWish.extend({ lesson: Id.nullable(), zone: Zone.shape.zone }),
        response: { 201: RecordLink },
      },
    },
    async (request, reply) => {
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
  );

  app.post(
    '/record-links/:link/withdraw',
    {
      schema: {
        tags,
        summary: 'Withdraw a link: it opens nothing from here on, wherever it is open',
        params: z.object({ link: Id }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      await app.recordLinks.withdraw(params.link, tutor.id);
      return reply.status(204).send(null);
    },
  );
};
