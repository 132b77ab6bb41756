import fp from 'fastify-plugin';
import { join } from 'node:path';
import type { ImageProcess } from '../pictures/image-process.js';
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
  (
    app,
    { folder, imageProcess }: { readonly folder: string; readonly imageProcess: ImageProcess },
    done,
  ) => {
    const { db, boardPdfs } = app;
    app.decorate('recordLinks', new RecordLinks(db));
    app.decorate('sharedRecords', new SharedRecords(app.records, app.recordNotes));
    app.decorate(
      'sharedPages',
      new SharedPages({
        ...{ db, boardPdfs, imageProcess, files: app.files.folder },
        folder: join(folder, 'shared-pages'),
      }),
    );
    done();
  },
  { name: 'record-links', dependencies: ['database', 'records', 'mailbox'] },
);
