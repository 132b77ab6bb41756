import { Id } from '@cuaderno/core';
import { BoardWriter } from '@cuaderno/formats/board-file';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';

/** Boards as files for other programs, as they are now. */
export const exportRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/boards/:board/writers',
    {
      schema: {
        tags: ['boards'],
        summary: 'Who wrote on the board, in whatever lesson',
        params: z.object({ board: Id }),
        response: { 200: z.object({ writers: z.array(BoardWriter) }) },
      },
    },
    async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      return { writers: await app.boardWriters.of(board.id) };
    },
  );

  app.get(
    '/boards/:board/pdf',
    {
      schema: {
        tags: ['boards'],
        summary: 'The board as one PDF, with what was written on it or without',
        params: z.object({ board: Id }),
        querystring: z.object({ ink: z.enum(['all', 'none']).default('all') }),
      },
    },
    async (request, reply) => {
      const { tutor, params, query } = request;
      const board = await app.boards.one(params.board, tutor.id);
      const gone = new AbortController();
      request.raw.once('close', () => request.raw.destroyed && gone.abort());
      const pdf = await app.boardPdfs
        .make(
          {
            port: app.db.lend(),
            board: board.id,
            record: null,
            ink: query.ink === 'all' ? 'drawn' : 'none',
            title: board.title,
            author: tutor.name,
            date: Date.now(),
            files: app.files.folder,
          },
          gone.signal,
        )
        .catch((error: unknown) => {
          request.log.error({ err: error }, 'a board could not be exported');
          throw new ProblemError('export-failed', {
            detail: 'The board itself is safe. Try again in a minute.',
          });
        });
      return reply
        .header('content-type', 'application/pdf')
        .header('content-disposition', attachment(`${board.title}.pdf`))
        .send(Buffer.from(pdf.buffer, pdf.byteOffset, pdf.byteLength));
    },
  );
};
