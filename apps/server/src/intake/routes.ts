import { FileName } from '@cuaderno/contract/materials';
import { uploadMaterial } from '@cuaderno/contract/routes/boards';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import { served } from '../contract/served.js';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';

export const intakeRoutes: FastifyPluginAsyncZod<{ maxUploadBytes: number }> = async (
  app,
  { maxUploadBytes },
) => {
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  app.route({
    ...served(uploadMaterial),
    bodyLimit: maxUploadBytes + 1024,
    handler: async (request, reply) => {
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > maxUploadBytes)
        throw new ProblemError('file-too-large', { detail: tooLarge(maxUploadBytes) });
      const board = await app.boards.one(request.params.board, request.tutor.id);
      const name = [...request.query.name].slice(0, 200).join('');
      const kept = await app.intake.receive(
        board.id,
        name,
        request.body as Readable,
        maxUploadBytes,
      );
      if (request.query.still === '0') {
        const course = await app.courses.one(board.course, request.tutor.id);
        await app.arrivals.laid(course, FileName.catch('File').parse(request.query.name), kept);
      }
      return reply.status(201).send({ ...kept, remarks: [...kept.remarks] });
    },
  });
};
