import fp from 'fastify-plugin';
import { join } from 'node:path';
import type { Darkroom } from '../pictures/darkroom.js';
import { RecordLinks } from './record-links.js';
import { SharedPages } from './shared-pages.js';
import { SharedRecords } from './shared-records.js';

declare module 'fastify' {
  interface FastifyInstance {
    recordLinks: RecordLinks;
    sharedRecords: SharedRecords;
    sharedPages: SharedPages;
  }
}

/** Records shown to students and parents by links. */
export const recordLinks = fp(
  (app, { folder, darkroom }: { readonly folder: string; readonly darkroom: Darkroom }, done) => {
    const { db, workers } = app;
    app.decorate('recordLinks', new RecordLinks(db));
    app.decorate('sharedRecords', new SharedRecords(app.records, app.recordNotes));
    app.decorate(
      'sharedPages',
      new SharedPages({
        ...{ db, workers, darkroom, files: app.files.folder },
        folder: join(folder, 'shared-pages'),
      }),
    );
    done();
  },
  { name: 'record-links', dependencies: ['database', 'workers', 'records', 'mailbox'] },
);
