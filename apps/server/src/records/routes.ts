import {
  copyRecord,
  findRecords,
  listAttendance,
  listStudents,
  readRecord,
  readRecordBoard,
  readRecordLog,
  readRecordPreview,
  readTimeline,
  retryIndexing,
} from '@cuaderno/contract/routes/records';
import type { Id } from '@cuaderno/core';
import { boardSnapshot, pack } from '@cuaderno/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';

export const recordRoutes: FastifyPluginAsyncZod = async (app) => {
  /** A record is as it was, but for what was taken out of its board since: a browser that has it so needs no other. */
  async function unknownVersion(
    request: FastifyRequest,
    reply: FastifyReply,
    record: { readonly lesson: Id },
  ): Promise<string | null> {
    const version = await app.records.version(record);
    const tag = `"${version}"`;
    reply.header('cache-control', 'private, no-cache').header('etag', tag);
    return request.headers['if-none-match'] === tag ? null : version;
  }

  app.route({
    ...served(findRecords),
    handler: ({ tutor, query }) => app.finding.find(tutor.id, query),
  });

  app.route({
    ...served(listStudents),
    handler: async ({ tutor }) => ({ students: await app.finding.students(tutor.id) }),
  });

  app.route({
    ...served(listAttendance),
    handler: async ({ tutor, params }) => {
      const course = await app.courses.one(params.course, tutor.id);
      return { lessons: await app.records.attended(course.id) };
    },
  });

  app.route({
    ...served(readRecord),
    handler: async ({ tutor, params }) => {
      const record = await app.records.one(params.lesson, tutor.id);
      return {
        record,
        attendance: await app.records.attendance(record.lesson, record.closedAt),
        indexing: app.indexing.progress(record),
        statistics: record.statistics,
        boards: await app.records.boardsNow(record),
        said: await app.records.said(record.lesson),
      };
    },
  });

  app.route({
    ...served(readRecordPreview),
    handler: async (request, reply) => {
      const record = await app.records.one(request.params.lesson, request.tutor.id);
      const version = await unknownVersion(request, reply, record);
      if (version === null) return reply.status(304).send();
      const page = await app.recordCovers.of(record.lesson, version);
      if (!page) throw new ProblemError('not-found');
      return reply.header('content-type', 'application/vnd.msgpack').send(page);
    },
  });

  app.route({
    ...served(retryIndexing),
    handler: async ({ tutor, params }, reply) => {
      const record = await app.records.one(params.lesson, tutor.id);
      app.indexing.queue(record.lesson);
      return reply.status(202).send(app.indexing.progress(record));
    },
  });

  app.route({
    ...served(copyRecord),
    handler: async ({ tutor, params, body }, reply) => {
      const { course, title, lessonInk } = body;
      const record = await app.records.one(params.lesson, tutor.id);
      const to = await app.courses.one(course ?? record.course, tutor.id);
      const wish = { course: to.id, title, lessonInk };
      const like = await app.records.board(record);
      return reply.status(201).send(await app.copies.copyState(like, wish, tutor.id));
    },
  });

  app.route({
    ...served(readRecordBoard),
    handler: async (request, reply) => {
      const { tutor, params } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      if ((await unknownVersion(request, reply, record)) === null) return reply.status(304).send();
      const board = await app.records.board(record);
      const seq = Math.max(0, ...(await app.records.boards(record)).map((one) => one.seq));
      return reply
        .header('content-type', 'application/vnd.msgpack')
        .send(Buffer.from(pack(boardSnapshot(board, seq))));
    },
  });

  app.route({
    ...served(readTimeline),
    handler: async ({ tutor, params }) => {
      const { lesson } = await app.records.one(params.lesson, tutor.id);
      return app.records.timeline(lesson);
    },
  });

  app.route({
    ...served(readRecordLog),
    handler: async (request, reply) => {
      const { tutor, params } = request;
      const record = await app.records.one(params.lesson, tutor.id);
      if ((await unknownVersion(request, reply, record)) === null) return reply.status(304).send();
      const { before, beforeSeq, entries } = await app.records.log(record);
      return reply
        .header('content-type', 'application/vnd.msgpack')
        .send(Buffer.from(pack({ before: boardSnapshot(before, beforeSeq), entries })));
    },
  });
};
