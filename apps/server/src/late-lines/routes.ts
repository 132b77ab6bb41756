import { Id, MAX_MESSAGE_BYTES, MessageError, pack } from '@cuaderno/core';
import type { Operation } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { deviceOf } from '../lessons/device.js';
import { readMessage } from '../live/message-reader.js';
import { hostOf } from '../live/lesson-bus.js';
import { ProblemError } from '../problems/index.js';
import { withPlace } from './late-lines.js';
import { LateAnswer, LateLinesShape, OwnLateLines } from '@cuaderno/contract/late-lines';

const tags = ['late lines'];
const Nothing = z.null();

/** What a student's browser offers: the message in which it would have sent it. Throws `bad-request`. */
function offered(body: unknown): readonly Operation[] {
  try {
    const message = Buffer.isBuffer(body) ? readMessage(body, 'student') : null;
    if (message?.kind === 'ops') return message.ops;
  } catch (error) {
    if (!(error instanceof MessageError)) throw error;
  }
  throw new ProblemError('bad-request');
}

/** A student's browser brings what it kept, and asks what became of it. It is known by what it keeps. */
export const lateRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer', bodyLimit: MAX_MESSAGE_BYTES },
    (_request, body, done) => done(null, body),
  );

  app.post(
    '/late-lines/of/:person',
    {
      bodyLimit: MAX_MESSAGE_BYTES,
      schema: {
        tags,
        summary: 'What a student wrote while their line was away; the body is an `ops` message',
        consumes: ['application/octet-stream'],
        params: z.object({ person: Id }),
        response: { 200: LateAnswer },
      },
    },
    async (request, reply) => {
      // Who it is comes before what they bring is read.
      const writer = await app.lateLines.writer(request.params.person, deviceOf(request, reply));
      const answer = await app.lateLines.offer(writer, offered(request.body));
      if (answer.waiting.length > 0) app.live.lateCame(writer);
      return answer;
    },
  );

  app.get(
    '/late-lines/own',
    {
      schema: {
        tags,
        summary: 'What became of the late lines of this browser',
        response: { 200: z.object({ lessons: z.array(OwnLateLines) }) },
      },
    },
    async (request, reply) => ({ lessons: await app.lateLines.own(deviceOf(request, reply)) }),
  );

  app.post(
    '/late-lines/own/told',
    { schema: { tags, summary: 'The student has read it', response: { 204: Nothing } } },
    async (request, reply) => {
      await app.lateLines.told(deviceOf(request, reply));
      return reply.status(204).send(null);
    },
  );
};

/** The tutor looks at late lines, and adds or leaves them. */
export const tutorLateRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);
  const params = z.object({ lesson: Id, person: Id });

  app.get(
    '/late-lines',
    {
      schema: {
        tags,
        summary: 'Late lines that wait, by lesson and student; the newest first',
        response: { 200: z.object({ waiting: z.array(LateLinesShape) }) },
      },
    },
    async ({ tutor }) => ({ waiting: await app.lateLines.waiting(tutor.id) }),
  );

  app.get(
    '/late-lines/:lesson/:person',
    {
      schema: {
        tags,
        summary: 'Late lines of one student of a lesson (MessagePack: a list of operations)',
        params,
      },
    },
    async ({ tutor, params: { lesson, person } }, reply) => {
      const { ops } = await app.lateLines.of(tutor.id, lesson, person);
      return reply.type('application/octet-stream').send(Buffer.from(pack(ops)));
    },
  );

  app.post(
    '/late-lines/:lesson/:person',
    {
      schema: {
        tags,
        summary: 'Add them to the page as it is now or to the lesson’s record, or leave them',
        params,
        body: z.strictObject({ to: z.enum(['page', 'record', 'nowhere']) }),
        response: {
          200: z.object({
            settled: z.number(),
            /** Their page isn't there any more: they wait on. */
            without: z.number(),
          }),
        },
      },
    },
    async ({ tutor, params: { lesson, person }, body: { to } }) => {
      const { writer, ops } = await app.lateLines.of(tutor.id, lesson, person);
      const settle = async (done: readonly Operation[], state: 'page' | 'record' | 'left') => {
        const ids = done.map(({ id }) => id);
        await app.lateLines.settle(lesson, person, ids, state);
        app.live.lateSettled(writer, await app.lateLines.deviceOf(lesson, person));
        return { settled: done.length, without: ops.length - done.length };
      };
      if (to === 'nowhere') return settle(ops, 'left');
      if (to === 'record') {
        if (writer.closedAt === null) throw new ProblemError('lesson-still-open');
        const record = await app.records.one(lesson, tutor.id);
        const answer = await settle(withPlace(ops, await app.records.board(record)), 'record');
        await app.sharedPages.forget(lesson);
        app.indexing.queue(lesson);
        return answer;
      }
      const host = await hostOf(app.bus, writer.board);
      const fitting = withPlace(ops, host.board);
      const open = app.lessons.onBoard(writer.board)?.id === lesson ? lesson : null;
      const at = Date.now();
      await host.bring(fitting.map((op) => ({ op, by: person, at, lesson: open })));
      // Whatever had no place by then waits on.
      return settle(
        fitting.filter(({ id }) => host.knowsAny([id])),
        'page',
      );
    },
  );
};
