import { pagesInOrder } from '@cuaderno/core';
import fp from 'fastify-plugin';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { BoardPdfs } from './board-pdfs.js';
import { Finding } from './finding.js';
import { RecordNotes } from './notes.js';
import { RecordCovers } from './record-covers.js';
import { RecordIndexer } from './record-indexer.js';
import { RecordWriter } from './record-writer.js';
import { Records } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    records: Records;
    recordWriter: RecordWriter;
    indexing: RecordIndexer;
    boardPdfs: BoardPdfs;
    recordNotes: RecordNotes;
    recordCovers: RecordCovers;
    finding: Finding;
    /** Everyone out, the link shut, the record begun; nobody waits until it is written down. */
    closeLesson(lesson: LiveLesson): Promise<void>;
  }
}

/** What closed lessons leave. */
export const records = fp(
  (app, _options, done) => {
    const service = new Records(app.db, app.logs);
    const writer = new RecordWriter(app.workers);
    const indexing = new RecordIndexer(app.db, writer, app.files.folder, app.log);
    app.decorate('recordWriter', writer);
    app.decorate('boardPdfs', new BoardPdfs(app.workers));
    app.decorate('records', service);
    app.decorate('indexing', indexing);
    app.decorate('recordNotes', new RecordNotes(app.db));
    app.decorate('recordCovers', new RecordCovers(service));
    app.decorate('finding', new Finding(app.db, service, app.recordNotes));
    app.decorate('closeLesson', (lesson: LiveLesson) =>
      app.live.closeLesson(lesson, (at, ends) =>
        indexing.begin(
          lesson.id,
          at,
          ends.map(({ board, seq }) => ({
            ...{ board: board.id, title: board.title, seq },
            pageCount: pagesInOrder(board).length,
          })),
        ),
      ),
    );
    app.addHook('onReady', () => indexing.resume());
    app.addHook('preClose', () => indexing.close());
    done();
  },
  { name: 'records', dependencies: ['database', 'files', 'live', 'workers'] },
);
