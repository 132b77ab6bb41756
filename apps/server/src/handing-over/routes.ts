import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { fileName } from '../files/endings.js';
import { deviceOf } from '../lessons/device.js';
import { HandedFile, HandOverShape, Receiver } from '@cuaderno/contract/handing-over';

const tags = ['handing over'];

/** A student sees what was handed to them, and fetches it: in a lesson, before it and after. */
export const handedRoutes: FastifyPluginAsyncZod = async (app) => {
  app.get(
    '/handed',
    {
      schema: {
        tags,
        summary: 'What was handed to whoever this browser is',
        response: { 200: z.object({ files: z.array(HandedFile) }) },
      },
    },
    async (request, reply) => ({ files: await app.handOvers.to(deviceOf(request, reply)) }),
  );

  app.get(
    '/handed/:id/file',
    {
      schema: {
        tags,
        summary: 'A file that was handed over, to be kept',
        params: z.object({ id: Id }),
      },
    },
    async (request, reply) => {
      const device = deviceOf(request, reply);
      const { file, type, name, course } = await app.handOvers.fetch(device, request.params.id);
      app.live.handOversChanged(course);
      // No packed copies lie beside stored files; looking for them would lose the file's type.
      delete request.raw.headers['accept-encoding'];
      return reply
        .header('cache-control', 'no-store')
        .header('content-type', type)
        .header('x-content-type-options', 'nosniff')
        .header('content-disposition', attachment(fileName(name, type)))
        .sendFile(`${file.slice(0, 2)}/${file}`, app.files.folder, {
          ...{ cacheControl: false, contentType: false, lastModified: false },
        });
    },
  );
};

/** The tutor hands files over, and sees who has them. */
export const handOverRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/courses/:course/hand-overs',
    {
      schema: {
        tags,
        summary:
          'To whom something can be handed in a course, what was handed over, and who has it',
        params: z.object({ course: Id }),
        response: {
          200: z.object({ students: z.array(Receiver), handOvers: z.array(HandOverShape) }),
        },
      },
    },
    async ({ tutor, params: { course } }) => {
      await app.courses.one(course, tutor.id);
      const [students, handOvers] = await Promise.all([
        app.handOvers.receivers(course),
        app.handOvers.of(course),
      ]);
      return { students, handOvers };
    },
  );

  app.post(
    '/courses/:course/hand-overs',
    {
      schema: {
        tags,
        summary: 'Hand a file to all students of a course, or to some',
        params: z.object({ course: Id }),
        body: z.strictObject({
          asset: Id,
          to: z.union([z.literal('all'), z.array(z.string().max(100)).min(1).max(200)]),
        }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params: { course }, body: { asset, to } }, reply) => {
      await app.courses.one(course, tutor.id);
      await app.handOvers.hand(tutor.id, course, asset, to);
      app.live.handOversChanged(course);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/hand-overs/:id/take-back',
    {
      schema: {
        tags,
        summary: 'Take back what was handed over; who has fetched it has it',
        params: z.object({ id: Id }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params: { id } }, reply) => {
      const course = await app.handOvers.takeBack(tutor.id, id);
      app.live.handOversChanged(course);
      return reply.status(204).send(null);
    },
  );
};
