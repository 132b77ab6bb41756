import { boardSnapshot, Id, RecordTimeline, pack } from '@cuaderno/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { BoardShape, Title } from '@cuaderno/contract/courses';
import { Attended, FoundRecord, IndexingState, RecordOpened } from '@cuaderno/contract/records';

const tags = ['records'];
const Params = z.object({ lesson: Id });

/** A moment, in ms since 1970, in an address. */
const Moment = z.coerce.number().int().min(0).max(8.64e15);
const FindQuery = z.object({
  words: z.string().max(200).optional(),
  course: Id.optional(),
  student: z.string().max(200).optional(),
  from: Moment.optional(),
  until: Moment.optional(),
  skip: z.coerce.number().int().min(0).max(1_000_000).optional(),
});

export const recordRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  /** A record is as it was, but for what was taken out of its board since: a browser that has it so needs no other. */
  async function isKnown(
    request: FastifyRequest,
    reply: FastifyReply,
    record: { readonly lesson: Id; readonly board: Id; readonly seq: number },
  ): Promise<boolean> {
    const tag = `"${await app.records.version(record)}"`;
    reply.header('cache-control', 'private, no-cache').header('etag', tag);
    return request.headers['if-none-match'] === tag;
  }

  app.get(
    '/records',
    {
      schema: {
        tags,
        summary: 'Find records: by course, student, date and words on pages, in chat and notes',
        querystring: FindQuery,
        response: {
          200: z.object({
            found: z.array(FoundRecord),
            more: z.boolean(),
          }),
        },
      },
    },
    ({ tutor, query }) => app.finding.find(tutor.id, query),
  );

  app.get(
    '/students',
    {
      schema: {
        tags,
        summary: 'Names of students who were in this tutor’s lessons',
        response: { 200: z.object({ students: z.array(z.string()) }) },
      },
    },
    async ({ tutor }) => ({ students: await app.finding.students(tutor.id) }),
  );

  app.get(
    '/courses/:course/attendance',
    {
      schema: {
        tags,
        summary: 'Who came to the lessons of a course, and for how long; the latest first',
        params: z.object({ course: Id }),
        response: { 200: z.object({ lessons: z.array(Attended) }) },
      },
    },
    async ({ tutor, params }) => {
      const course = await app.courses.one(params.course, tutor.id);
      return { lessons: await app.records.attended(course.id) };
    },
  );

  app.get(
    '/records/:lesson',
    {
      schema: {
        tags,
        summary: 'A record: when the lesson was, and who was there',
        params: Params,
        response: {
          200: RecordOpened,
        },
      },
    },
    async ({ tutor, params }) => {
      const record = await app.records.one(params.lesson, tutor.id);
      return {
        record,
        attendance: await app.records.attendance(record.lesson, record.closedAt),
        indexing: app.indexing.progress(record),
        statistics: record.statistics,
        goesOn: await app.records.goesOn(record),
        said: await app.records.said(record.lesson),
      };
    },
  );

  app.post(
    '/records/:lesson/seal',
    {
      schema: {
        tags,
        summary: 'Write a record down once more, where that failed',
        params: Params,
        response: { 202: IndexingState },
      },
    },
    async ({ tutor, params }, reply) => {
      const record = await app.records.one(params.lesson, tutor.id);
      app.indexing.queue(record.lesson);
      return reply.status(202).send(app.indexing.progress(record));
    },
  );

  app.post(
    '/records/:lesson/copy',
    {
      schema: {
        tags,
        summary: 'Go on from a record: a new board as the lesson left it, or clean',
        params: Params,
        body: z.object({ course: z.string().optional(), title: Title, lessonInk: z.boolean() }),
        response: { 201: BoardShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const { course, title, lessonInk } = body;
      const record = await app.records.one(params.lesson, tutor.id);
      const to = await app.courses.one(course ?? record.course, tutor.id);
      const wish = { course: to.id, title, lessonInk };
      const like = await app.records.board(record);
      return reply.status(201).send(await app.copies.copyState(like, wish, tutor.id));
    },
  );

  app.get(
    '/records/:lesson/board',
    {
      schema: {
        tags,
        summary: 'The board as it stood, as a packed snapshot (MessagePack)',
        params: Params,
      },
    },
    async (request, reply) => {
      const { tutor, params } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      if (await isKnown(request, reply, record)) return reply.status(304).send();
      const board = await app.records.board(record);
      return reply
        .header('content-type', 'application/vnd.msgpack')
        .send(Buffer.from(pack(boardSnapshot(board, record.seq))));
    },
  );

  app.get(
    '/records/:lesson/timeline',
    {
      schema: {
        tags,
        summary:
          'What happened beside the pages: chat, hands and signals, and who turned to which page',
        params: Params,
        response: { 200: RecordTimeline },
      },
    },
    async ({ tutor, params }) => {
      const { lesson } = await app.records.one(params.lesson, tutor.id);
      return app.records.timeline(lesson);
    },
  );

  app.get(
    '/records/:lesson/log',
    {
      schema: {
        tags,
        summary:
          'The lesson as it happened (MessagePack): the board before it, and what was done, in order',
        params: Params,
      },
    },
    async (request, reply) => {
      const { tutor, params } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      if (await isKnown(request, reply, record)) return reply.status(304).send();
      const { before, beforeSeq, entries } = await app.records.log(record);
      return reply
        .header('content-type', 'application/vnd.msgpack')
        .send(Buffer.from(pack({ before: boardSnapshot(before, beforeSeq), entries })));
    },
  );
};
