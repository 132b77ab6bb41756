import { pagesInOrder } from '@cuaderno/core';
import fp from 'fastify-plugin';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { Finding } from './finding.js';
import { RecordNotes } from './notes.js';
import { Sealing } from './sealing.js';
import { Records } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    records: Records;
    sealing: Sealing;
    recordNotes: RecordNotes;
    finding: Finding;
    /** Everyone out, the link shut, the record begun; nobody waits until it is written down. */
    closeLesson(lesson: LiveLesson): Promise<void>;
  }
}

/** What closed lessons leave. */
export const records = fp(
  (app, _options, done) => {
    const service = new Records(app.db, app.logs);
    const sealing = new Sealing(app.db, app.workers, app.files.folder, app.log);
    app.decorate('records', service);
    app.decorate('sealing', sealing);
    app.decorate('recordNotes', new RecordNotes(app.db));
    app.decorate('finding', new Finding(app.db, service));
    app.decorate('closeLesson', (lesson: LiveLesson) =>
      app.live.closeLesson(lesson, (at, seq, board) =>
        sealing.begin(lesson, at, seq, pagesInOrder(board).length),
      ),
    );
    app.addHook('onReady', () => sealing.resume());
    app.addHook('preClose', () => sealing.close());
    done();
  },
  { name: 'records', dependencies: ['database', 'live', 'workers'] },
);
