import { downloadBoardPdf, listBoardWriters } from '@cuaderno/contract/routes/boards';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';

/** Boards as files for other programs, as they are now. */
export const exportRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listBoardWriters),
    handler: async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      return { writers: await app.boardWriters.of(board.id) };
    },
  });

  app.route({
    ...served(downloadBoardPdf),
    handler: async (request, reply) => {
      const { tutor, params, query } = request;
      const board = await app.boards.one(params.board, tutor.id);
      const gone = new AbortController();
      request.raw.once('close', () => request.raw.destroyed && gone.abort());
      const pdf = await app.boardPdfs
        .make(
          {
            port: app.db.lend(),
            of: { board: board.id },
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
  });
};
