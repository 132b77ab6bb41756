import { FileHash, Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import * as z from 'zod';
import { FileName } from '@cuaderno/contract/materials';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';

const Remark = z.enum(['frames', 'html', 'some-browsers']);
const pixels = z.number().min(0);

export const intakeRoutes: FastifyPluginAsyncZod<{ maxUploadBytes: number }> = async (
  app,
  { maxUploadBytes },
) => {
  app.addHook('onRequest', app.tutorOnly);
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  app.post(
    '/boards/:board/material',
    {
      bodyLimit: maxUploadBytes + 1024,
      schema: {
        tags: ['boards'],
        summary:
          'Bring a picture (PNG, JPEG, WebP, GIF, BMP, SVG), a sound or a film (MP3, WAV, OGG, M4A, WebM, MP4) to lay on a board',
        consumes: ['application/octet-stream'],
        params: z.object({ board: Id }),
        querystring: z.object({
          name: z.string().max(20_000).default(''),
          /** `1` for the still of a film, which is no file of its own. */
          still: z.enum(['0', '1']).default('0'),
        }),
        response: {
          201: z.discriminatedUnion('kind', [
            z.object({
              kind: z.literal('picture'),
              file: FileHash,
              /** In pixels, upright. */
              width: pixels,
              height: pixels,
              remarks: z.array(Remark),
            }),
            z.object({
              kind: z.enum(['sound', 'film']),
              file: FileHash,
              /** In pixels; 0 for a sound. */
              width: pixels,
              height: pixels,
              /** In seconds. */
              length: z.number(),
              remarks: z.array(Remark),
            }),
          ]),
        },
      },
    },
    async (request, reply) => {
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > maxUploadBytes)
        throw new ProblemError('file-too-large', { detail: tooLarge(maxUploadBytes) });
      const board = await app.boards.one(request.params.board, request.tutor.id);
      const name = [...request.query.name].slice(0, 200).join('');
      const kept = await app.intake.take(board.id, name, request.body as Readable, maxUploadBytes);
      if (request.query.still === '0') {
        const course = await app.courses.one(board.course, request.tutor.id);
        await app.arrivals.laid(course, FileName.catch('File').parse(request.query.name), kept);
      }
      return reply.status(201).send({ ...kept, remarks: [...kept.remarks] });
    },
  );
};
