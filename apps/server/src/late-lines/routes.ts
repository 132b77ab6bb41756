import {
  acknowledgeLateLines,
  decideLateLines,
  listLateLines,
  listOwnLateLines,
  offerLateLines,
  readLateLines,
} from '@cuaderno/contract/routes/late-lines';
import { MAX_MESSAGE_BYTES, MessageError, pack } from '@cuaderno/core';
import type { Id, Operation } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { deviceOf } from '../lessons/device.js';
import { hostOf } from '../live/lesson-bus.js';
import { readMessage } from '../live/message-reader.js';
import { ProblemError } from '../problems/index.js';
import { withPlace } from './late-lines.js';

/** Operations, and the board that they are for. */
interface OnBoard {
  readonly board: Id;
  readonly ops: readonly Operation[];
}

/** What a student's browser offers: the message in which it would have sent it. Throws `bad-request`. */
function offered(body: unknown): OnBoard {
  try {
    const message = Buffer.isBuffer(body) ? readMessage(body, 'student') : null;
    if (message?.kind === 'ops') return message;
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

  app.route({
    ...served(offerLateLines),
    bodyLimit: MAX_MESSAGE_BYTES,
    handler: async (request, reply) => {
      // Who it is comes before what they bring is read.
      const writer = await app.lateLines.writer(request.params.person, deviceOf(request, reply));
      const { board, ops } = offered(request.body);
      const answer = await app.lateLines.offer(writer, board, ops);
      if (answer.waiting.length > 0) app.live.lateCame(writer);
      return answer;
    },
  });

  app.route({
    ...served(listOwnLateLines),
    handler: async (request, reply) => ({
      lessons: await app.lateLines.own(deviceOf(request, reply)),
    }),
  });

  app.route({
    ...served(acknowledgeLateLines),
    handler: async (request, reply) => {
      await app.lateLines.told(deviceOf(request, reply));
      return reply.status(204).send(null);
    },
  });
};

/** The tutor looks at late lines, and adds or leaves them. */
export const tutorLateRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listLateLines),
    handler: async ({ tutor }) => ({ waiting: await app.lateLines.waiting(tutor.id) }),
  });

  app.route({
    ...served(readLateLines),
    handler: async ({ tutor, params }, reply) => {
      const { ops } = await app.lateLines.of(tutor.id, params);
      return reply.type('application/octet-stream').send(Buffer.from(pack(ops)));
    },
  });

  app.route({
    ...served(decideLateLines),
    handler: async ({ tutor, params, body: { to } }) => {
      const { lesson, person, board } = params;
      const { writer, ops } = await app.lateLines.of(tutor.id, params);
      const settle = async (done: readonly Operation[], state: 'page' | 'record' | 'left') => {
        const ids = done.map(({ id }) => id);
        await app.lateLines.settle(params, ids, state);
        app.live.lateSettled(writer, await app.lateLines.deviceOf(lesson, person));
        return { settled: done.length, without: ops.length - done.length };
      };
      if (to === 'nowhere') return settle(ops, 'left');
      if (to === 'record') {
        if (writer.closedAt === null) throw new ProblemError('lesson-still-open');
        const record = await app.records.one(lesson, tutor.id);
        const then = await app.records.oneBoard(record, board);
        const answer = await settle(then ? withPlace(ops, then) : [], 'record');
        await app.sharedPages.forget(lesson);
        app.indexing.queue(lesson);
        return answer;
      }
      const host = await hostOf(app.bus, board);
      const fitting = withPlace(ops, host.board);
      const open = app.lessons.onBoard(board)?.id === lesson ? lesson : null;
      const at = Date.now();
      await host.append(fitting.map((op) => ({ op, by: person, at, lesson: open })));
      // Whatever had no place by then waits on.
      return settle(
        fitting.filter(({ id }) => host.knowsAny([id])),
        'page',
      );
    },
  });
};
