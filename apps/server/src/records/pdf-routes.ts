import type { AppendixName } from '@cuaderno/contract/records';
import { downloadRecordPdf } from '@cuaderno/contract/routes/records';
import { newestOf } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { appendixOf } from './appendix.js';
import { signersOf } from './signers.js';

export const pdfRoutesOfRecords: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(downloadRecordPdf),
    handler: async (request, reply) => {
      const { tutor, params, query } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      const gone = new AbortController();
      request.raw.once('close', () => request.raw.destroyed && gone.abort());
      const people = await app.records.attendance(record.lesson, record.closedAt);
      const boards = (await app.records.boards(record)).map(({ id }) => id);
      const wanted = new Set<AppendixName>(query.with);
      const [notes, timeline] = await Promise.all([
        app.recordNotes.all(record.lesson, tutor.id),
        app.records.timeline(record.lesson),
      ]);
      const noted = (kind: 'summary' | 'until'): string =>
        newestOf(notes.filter((note) => note.kind === kind))?.text ?? '';
      const content = {
        ...{ record, people, timeline },
        ...{ summary: noted('summary'), until: noted('until') },
      };
      const day = DateTime.fromMillis(record.openedAt, { zone: query.zone }).toISODate();
      const title = `${record.courseName} – ${record.title} – ${day}`;
      const pdf = await app.boardPdfs
        .make(
          {
            port: app.db.lend(),
            of: { record: record.lesson },
            ink: query.ink,
            people: signersOf(people, await app.boardWriters.ofAll(boards)),
            only: query.only ? [query.only] : null,
            signed: query.signed,
            appendix: appendixOf(wanted, content, query.zone),
            ...(query.language ? { language: query.language } : {}),
            title,
            author: tutor.name,
            date: record.sealedAt,
            files: app.files.folder,
          },
          gone.signal,
        )
        .catch((error: unknown) => {
          request.log.error({ err: error }, 'a record could not be exported');
          throw new ProblemError('export-failed');
        });
      return reply
        .header('content-type', 'application/pdf')
        .header('content-disposition', attachment(`${title}.pdf`))
        .send(Buffer.from(pdf.buffer, pdf.byteOffset, pdf.byteLength));
    },
  });
};
