import { FileHash, Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import { z } from 'zod';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { PictureIntake } from './intake.js';

declare module 'fastify' {
  interface FastifyInstance {
    pictures: PictureIntake;
  }
}

/** Largest picture that is taken, in bytes: a camera's largest. */
const MAX_BYTES = 40 * 1024 * 1024;

export const pictureRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  app.post(
    '/boards/:board/pictures',
    {
      bodyLimit: MAX_BYTES + 1024,
      schema: {
        tags: ['boards'],
        summary: 'Bring a picture (PNG, JPEG, WebP, GIF, BMP, SVG) to lay on a board',
        consumes: ['application/octet-stream'],
        params: z.object({ board: Id }),
        querystring: z.object({ name: z.string().max(20_000).default('') }),
        response: {
          201: z.object({
            file: FileHash,
            /** In pixels, upright. */
            width: z.number(),
            height: z.number(),
          }),
        },
      },
    },
    async (request, reply) => {
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > MAX_BYTES)
        throw new ProblemError('file-too-large', { detail: tooLarge(MAX_BYTES) });
      const board = await app.boards.one(request.params.board, request.tutor.id);
      const name = [...request.query.name].slice(0, 200).join('');
      const picture = await app.pictures.take(board.id, name, request.body as Readable, MAX_BYTES);
      return reply.status(201).send(picture);
    },
  );
};
