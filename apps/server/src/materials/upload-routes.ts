import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';

const tags = ['materials'];

/** Files come in parts here, and go on where they broke off (tus 1.0); see `Uploads`. */
export const uploadRoutes: FastifyPluginAsyncZod<{ maxUploadBytes: number }> = async (
  app,
  { maxUploadBytes },
) => {
  app.addHook('onRequest', app.tutorOnly);
  app.addContentTypeParser('application/offset+octet-stream', (_request, payload, done) =>
    done(null, payload),
  );
  const bodyLimit = maxUploadBytes + 1024;

  app.post(
    '/materials/uploads',
    {
      bodyLimit,
      schema: {
        tags,
        summary:
          'Begin an upload (tus 1.0), with `name` and `folder` as its metadata; the last part is answered with the file',
        consumes: ['application/offset+octet-stream'],
      },
    },
    async (request, reply) => {
      reply.hijack();
      await app.uploads.handle(request.tutor, request.raw, reply.raw);
    },
  );

  app.route({
    method: ['HEAD', 'PATCH', 'DELETE'],
    url: '/materials/uploads/:upload',
    bodyLimit,
    schema: {
      tags,
      summary: 'How far an upload is; the next part of it; give it up (tus 1.0)',
      consumes: ['application/offset+octet-stream'],
      params: z.object({ upload: z.string().regex(/^[0-9a-f]{32}$/) }),
    },
    handler: async (request, reply) => {
      reply.hijack();
      await app.uploads.handle(request.tutor, request.raw, reply.raw);
    },
  });
};
