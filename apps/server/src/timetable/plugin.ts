import fp from 'fastify-plugin';
import { CalendarReader } from './calendar-reader.js';
import { Timetable } from './timetable.js';

declare module 'fastify' {
  interface FastifyInstance {
    timetable: Timetable;
    calendarReader: CalendarReader;
  }
}

/** When lessons are. */
export const timetable = fp(
  (app, _options, done) => {
    app.decorate('timetable', new Timetable(app.db));
    app.decorate('calendarReader', new CalendarReader(app.workers));
    done();
  },
  { name: 'timetable', dependencies: ['database', 'workers'] },
);
