import type { WebSocket } from 'ws';
import fp from 'fastify-plugin';
import { ProblemError } from '../problems/index.js';
import { admit } from '../live/plugin.js';
import { WaitingRoom } from './waiting-room.js';

declare module 'fastify' {
  interface FastifyInstance {
    waitingRoom: WaitingRoom;
  }
}

/** Who waits, told to tutors wherever they are. */
export const waiting = fp(
  (app, _options, done) => {
    const room = new WaitingRoom(app.courses, app.lessons, (error, where) =>
      app.uncaught.caught(error, where),
    );
    app.decorate('waitingRoom', room);
    app.live.onDoor = (lesson) => room.changed(lesson.tutor);
    app.live.onOpened = (lesson) => {
      room.early.opened(lesson.course);
      room.changed(lesson.tutor);
    };
    app.sessions.whenEnded.add(() => room.sessionsEnded());
    app.addHook('onClose', () => room.close());
    app.get(
      '/live/waiting',
      { websocket: true, schema: { hide: true } },
      async (socket: WebSocket, request) => {
        socket.pause();
        await admit(socket, app.uncaught, async () => {
          const session = await app.sessionOf(request);
          if (!session) throw new ProblemError('not-signed-in');
          app.sessions.watch(session);
          const isOn = (): boolean => app.sessions.isOn(session.key);
          room.watch({ socket, tutor: session.tutor.id, isOn });
        });
        socket.resume();
      },
    );
    done();
  },
  { name: 'waiting', dependencies: ['live', 'lessons', 'accounts'] },
);
