import {
  downloadSharedPdf,
  listSharedRecords,
  readSharedPage,
  readSharedRecord,
  readSharedState,
} from '@cuaderno/contract/routes/shared-records';
import { NOTHING_BESIDE } from '@cuaderno/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { appendixOf } from '../records/appendix.js';
import { deviceOf } from './device.js';

/** What a link opens, for anyone who has it. Nothing of it is kept by a browser: it may be withdrawn. */
export const sharedRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onSend', async (_request: FastifyRequest, reply: FastifyReply) => {
    reply.header('cache-control', 'no-store').header('x-robots-tag', 'noindex');
  });

  const device = (request: FastifyRequest): ReturnType<typeof deviceOf> =>
    deviceOf(request.headers['user-agent']);

  app.route({
    ...served(listSharedRecords),
    handler: async (request) => {
      const link = await app.recordLinks.open(request.params.token);
      await app.recordLinks.note(link.id, 'opened', link.lesson, device(request));
      return app.sharedRecords.list(link);
    },
  });

  app.route({
    ...served(readSharedState),
    handler: async ({ params }, reply) => {
      await app.recordLinks.open(params.token);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(readSharedRecord),
    handler: async (request) => {
      const { params } = request;
      const link = await app.recordLinks.open(params.token);
      const shown = await app.sharedRecords.one(link, params.lesson);
      await app.recordLinks.note(link.id, 'record', params.lesson, device(request));
      return shown;
    },
  });

  app.route({
    ...served(readSharedPage),
    handler: async ({ params }, reply) => {
      const link = await app.recordLinks.open(params.token);
      const record = await app.sharedRecords.record(link, params.lesson);
      const picture = await app.sharedPages.page(record, params.number);
      // Drawing takes a moment: what was withdrawn meanwhile isn't sent any more.
      await app.recordLinks.open(params.token);
      return reply.type('image/jpeg').send(picture);
    },
  });

  app.route({
    ...served(downloadSharedPdf),
    handler: async (request, reply) => {
      const { params, query } = request;
      const link = await app.recordLinks.open(params.token);
      if (link.may !== 'download') throw new ProblemError('look-only');
      const record = await app.sharedRecords.record(link, params.lesson);
      const noted = await app.sharedRecords.noted(link, params.lesson);
      const content = { record, timeline: NOTHING_BESIDE, people: [], ...noted };
      const day = DateTime.fromMillis(record.openedAt, { zone: query.zone }).toISODate();
      const title = `${record.courseName} – ${record.title} – ${day}`;
      const gone = new AbortController();
      request.raw.once('close', () => request.raw.destroyed && gone.abort());
      const pdf = await app.boardPdfs
        .make(
          {
            ...{ port: app.db.lend(), of: { record: record.lesson } },
            ...{ ink: 'drawn', forStudents: true },
            appendix: appendixOf(new Set(['notes']), content, query.zone),
            ...{ title, author: link.tutorName, date: record.sealedAt, files: app.files.folder },
          },
          gone.signal,
        )
        .catch((error: unknown) => {
          request.log.error({ err: error }, 'a shared record could not be exported');
          throw new ProblemError('export-failed');
        });
      await app.recordLinks.open(params.token);
      await app.recordLinks.note(link.id, 'downloaded', record.lesson, device(request));
      return reply
        .header('content-type', 'application/pdf')
        .header('content-disposition', attachment(`${title}.pdf`))
        .send(Buffer.from(pdf.buffer, pdf.byteOffset, pdf.byteLength));
    },
  });
};
