import fp from 'fastify-plugin';
import { Deleting } from './deleting.js';
import { StudentsData } from './student-data.js';

declare module 'fastify' {
  interface FastifyInstance {
    studentsData: StudentsData;
    deleting: Deleting;
  }
}

/** What there is of a student, and deleting it. */
export const studentData = fp(
  (app, { folder }: { folder: string }, done) => {
    const { db, bus, logs, workers, sealing, sharedPages } = app;
    const data = new StudentsData(db);
    app.decorate('studentsData', data);
    app.decorate(
      'deleting',
      new Deleting({ db, bus, logs, workers, sealing, sharedPages, data, folder }),
    );
    done();
  },
  { name: 'student-data', dependencies: ['database', 'live', 'records', 'record-links'] },
);
