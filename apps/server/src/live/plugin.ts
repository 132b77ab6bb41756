import websocket from '@fastify/websocket';
import { Id, MAX_MESSAGE_BYTES, pack, CLOSE } from '@cuaderno/core';
import type { ServerMessage } from '@cuaderno/core';
import fp from 'fastify-plugin';
import type { FastifyRequest } from 'fastify';
import type { WebSocket } from 'ws';
import * as z from 'zod';
import { LogStore } from '../boards/log-store.js';
import type { Database } from '../database/index.js';
import type { Uncaught } from '../health/uncaught.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import { LiveConnection } from './connection.js';
import { DoorConnection } from './door-connection.js';
import type { IceSettings } from './features/media/ice-servers.js';
import { StorageGuard } from './storage-guard.js';
import { LocalBus } from './lesson-bus.js';
import type { LessonBus } from './lesson-bus.js';
import { studentSeat, tutorSeat } from './seat.js';
import { LiveService } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    bus: LessonBus;
    live: LiveService;
    logs: LogStore;
  }
}

/** With which code a connection ends, by what was wrong. */
const CODES: Partial<Record<ProblemCode, number>> = {
  'lesson-over': CLOSE.over,
  'at-the-door': CLOSE.door,
};

/**
 * Who this is; or the reason why not, which a browser can only be told over the open connection,
 * since it hides what a refused upgrade said.
 */
export async function admit(
  socket: WebSocket,
  { caught }: Uncaught,
  who: () => Promise<unknown> | unknown,
): Promise<void> {
  try {
    await who();
  } catch (error) {
    if (!(error instanceof ProblemError)) {
      caught(error, 'a window that came');
      return socket.close(CLOSE.again);
    }
    socket.send(pack({ kind: 'problem', problem: error.problem } satisfies ServerMessage));
    socket.close(CODES[error.code] ?? CLOSE.notIn);
  }
}

export const live = fp(
  async (app, { messagesPerSecond, ice }: { messagesPerSecond: number; ice: IceSettings }) => {
    await app.register(websocket, {
      // A little above what is told apart in plain words; far larger ones end the connection.
      options: { maxPayload: 4 * MAX_MESSAGE_BYTES, perMessageDeflate: false },
    });
    const logs = new LogStore(app.db);
    const bus = new LocalBus(logs, app.log, (board) => app.lessons.onBoard(board)?.id ?? null);
    const storageGuard = new StorageGuard(() => writeDown(app.db), app.log);
    app.addHook('onClose', () => storageGuard.close());
    const service = new LiveService(
      ...([app.db, bus, app.lessons, app.boards, app.log, storageGuard] as const),
      messagesPerSecond,
      ice,
      app.uncaught.caught,
    );
    // Before the database is closed: hooks of closing run in the reverse order of their adding.
    app.addHook('onClose', () => service.shutDown());
    for (const lesson of app.lessons.all()) await service.features.restore(lesson);
    app.sessions.whenEnded.add(() => service.sessionsEnded());
    app.decorate('logs', logs);
    app.decorate('bus', bus);
    app.decorate('live', service);

    await app.register(async (scope) => {
      const Params = z.object({ board: Id });
      const schema = { hide: true };
      scope.get<{ Params: z.infer<typeof Params> }>(
        '/live/boards/:board',
        { websocket: true, schema: { ...schema, params: Params } },
        async (socket: WebSocket, request: FastifyRequest<{ Params: { board: string } }>) => {
          // What a browser says while we look up who it is waits on its line.
          socket.pause();
          await admit(socket, app.uncaught, async () => {
            const session = await app.sessionOf(request);
            if (!session) throw new ProblemError('not-signed-in');
            // A window begins with one board, and is of its course.
            const { course } = await app.boards.one(request.params.board, session.tutor.id);
            app.sessions.watch(session);
            const seat = tutorSeat(session, course, app);
            return new LiveConnection(socket, request.socket, service, seat);
          });
          socket.resume();
        },
      );
      scope.get('/live/lesson', { websocket: true, schema }, async (socket: WebSocket, request) => {
        await admit(socket, app.uncaught, () => {
          const { lesson, person } = app.studentOf(request);
          const seat = studentSeat(lesson, person, app.lessons);
          return new LiveConnection(socket, request.socket, service, seat);
        });
      });
      scope.get('/live/door', { websocket: true, schema }, async (socket: WebSocket, request) => {
        await admit(socket, app.uncaught, () => {
          const { lesson, person } = app.arrivalOf(request);
          service.doorstep.come((left) => new DoorConnection(socket, lesson, person, left));
        });
      });
    });
  },
  { name: 'live', dependencies: ['database', 'accounts', 'boards', 'lessons', 'uncaught'] },
);

/** Writes as much down as many lines are, and takes it away again. Rejects where there is no room. */
async function writeDown(db: Database): Promise<void> {
  const say = (sql: string) => ({ sql, params: [] });
  await db.raw([
    say('CREATE TABLE IF NOT EXISTS room_on_disk (bytes BLOB)'),
    say('INSERT INTO room_on_disk VALUES (zeroblob(131072))'),
  ]);
  await db.raw([say('DROP TABLE room_on_disk')]);
}
