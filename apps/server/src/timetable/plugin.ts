import fp from 'fastify-plugin';
import { Timetable } from './timetable.js';

declare module 'fastify' {
  interface FastifyInstance {
    timetable: Timetable;
  }
}

/** When lessons are. */
export const timetable = fp(
  (app, _options, done) => {
    app.decorate('timetable', new Timetable(app.db));
    done();
  },
  { name: 'timetable', dependencies: ['database'] },
);
