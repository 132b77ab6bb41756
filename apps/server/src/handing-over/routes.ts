import {
  downloadHandedFile,
  handOver,
  listHandedFiles,
  listHandOvers,
  takeBackHandOver,
} from '@cuaderno/contract/routes/handing-over';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { fileName } from '../files/endings.js';
import { deviceOf } from '../lessons/device.js';

/** A student sees what was handed to them, and fetches it: in a lesson, before it and after. */
export const handedRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listHandedFiles),
    handler: async (request, reply) => ({
      files: await app.handOvers.to(deviceOf(request, reply)),
    }),
  });

  app.route({
    ...served(downloadHandedFile),
    handler: async (request, reply) => {
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
  });
};

/** The tutor hands files over, and sees who has them. */
export const handOverRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listHandOvers),
    handler: async ({ tutor, params: { course } }) => {
      await app.courses.one(course, tutor.id);
      const [students, handOvers] = await Promise.all([
        app.handOvers.receivers(course),
        app.handOvers.of(course),
      ]);
      return { students, handOvers };
    },
  });

  app.route({
    ...served(handOver),
    handler: async ({ tutor, params: { course }, body: { asset, to } }, reply) => {
      await app.courses.one(course, tutor.id);
      await app.handOvers.hand(tutor.id, course, asset, to);
      app.live.handOversChanged(course);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(takeBackHandOver),
    handler: async ({ tutor, params: { id } }, reply) => {
      const course = await app.handOvers.takeBack(tutor.id, id);
      app.live.handOversChanged(course);
      return reply.status(204).send(null);
    },
  });
};
