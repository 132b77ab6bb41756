import fp from 'fastify-plugin';
import { BoardRedactor } from './board-redactor.js';
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
    const { db, bus, logs, indexing, sharedPages } = app;
    const data = new StudentsData(db);
    const redactor = new BoardRedactor(app.workers);
    app.decorate('studentsData', data);
    app.decorate(
      'deleting',
      new Deleting({ db, bus, logs, redactor, indexing, sharedPages, data, folder }),
    );
    done();
  },
  {
    name: 'student-data',
    dependencies: ['database', 'workers', 'live', 'records', 'record-links'],
  },
);
