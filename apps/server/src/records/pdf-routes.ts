import { Id, newestOf } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { APPENDIX, appendixOf } from './appendix.js';
import type { AppendixName } from './appendix.js';
import { signersOf } from './signers.js';
import { Zone } from '@cuaderno/contract/time-zone';

/** A language as BCP 47 writes it, in short. */
const Language = z
  .string()
  .max(35)
  .regex(/^[a-zA-Z]{2,8}(-[a-zA-Z0-9]{1,8})*$/, 'a language, as nb or en-GB');

const PdfQuery = Zone.extend({
  /** How what was written goes along. */
  ink: z.enum(['drawn', 'annotations', 'none']).default('drawn'),
  /** Whether it is shown whose each line is. */
  signed: z.stringbool().default(false),
  /** The one person whose ink goes along. */
  only: Id.optional(),
  /** What follows the pages, with commas between. */
  with: z
    .string()
    .default('')
    .transform((list) => list.split(',').filter((name) => name !== ''))
    .pipe(z.array(z.enum(APPENDIX)).max(APPENDIX.length)),
  language: Language.optional(),
});

export const pdfRoutesOfRecords: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/records/:lesson/pdf',
    {
      schema: {
        tags: ['records'],
        summary:
          'The record as one PDF: ink drawn in, as annotations or left out; signed, or of one person alone; with pages for notes, chat and attendance',
        params: z.object({ lesson: Id }),
        querystring: PdfQuery,
      },
    },
    async (request, reply) => {
      const { tutor, params, query } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      const gone = new AbortController();
      request.raw.once('close', () => request.raw.destroyed && gone.abort());
      const people = await app.records.attendance(record.lesson, record.closedAt);
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
            board: record.board,
            record,
            ink: query.ink,
            people: signersOf(people, await app.boardWriters.of(record.board)),
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
  );
};
