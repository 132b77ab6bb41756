import fp from 'fastify-plugin';
import { join } from 'node:path';
import { ImageProcess } from '../pictures/image-process.js';
import type { Office } from '../slides/office.js';
import { Arrivals } from './arrivals.js';
import { PagePictures } from './page-pictures.js';
import { Materials } from './service.js';
import { Shares } from './shares.js';
import { SlidePreviews } from './slide-previews.js';
import { LibraryEdits } from './library-edits.js';
import { KeyedMutex } from './keyed-mutex.js';
import { Uploads } from './uploads.js';
import { Uses } from './uses.js';

interface MaterialOptions {
  /** Folder that holds everything. */
  readonly folder: string;
  readonly maxUploadBytes: number;
  readonly office: Office;
}

/** Tutors' files: in folders, shared, looked at. */
export const materials = fp(
  async (app, { folder, maxUploadBytes, office }: MaterialOptions) => {
    const { files: store, knownFiles: known, imports, intake, log, slides } = app;
    const mutex = new KeyedMutex((tutor) => app.live.materialsChanged(tutor));
    const service = new Materials(app.db, known, mutex);
    const arrivals = new Arrivals(
      {
        ...{ materials: service, intake, imports, slides, store, known, log },
        boardFiles: app.boardFileReader,
      },
      maxUploadBytes,
    );
    const uploads = new Uploads(arrivals, store, {
      path: '/api/materials/uploads',
      folder: join(folder, 'uploads'),
      limit: maxUploadBytes,
    });
    // Not the one in which pictures are made ready for tutors who wait for them.
    const imageProcess = new ImageProcess(log);
    app.decorate('materials', service);
    app.decorate('shares', new Shares(app.db, service, mutex));
    app.decorate('libraryEdits', new LibraryEdits(app.db, service, store, mutex));
    app.decorate('arrivals', arrivals);
    app.decorate('uploads', uploads);
    app.decorate('uses', new Uses(app.db, app.bus));
    app.decorate(
      'pagePictures',
      new PagePictures(store, imageProcess, join(folder, 'small-pictures')),
    );
    app.decorate(
      'slidePreviews',
      new SlidePreviews(
        {
          ...{ materials: service, imports, slides, queue: app.importQueue, office, store },
          decks: app.deckReader,
        },
        maxUploadBytes,
      ),
    );
    app.addHook('onClose', () => imageProcess.close());
    await uploads.clear();
  },
  { name: 'materials', dependencies: ['database', 'accounts', 'live'] },
);
