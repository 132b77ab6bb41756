import fp from 'fastify-plugin';
import { join } from 'node:path';
import { Darkroom } from '../pictures/darkroom.js';
import type { Office } from '../slides/office.js';
import { Arrivals } from './arrivals.js';
import { PagePictures } from './page-pictures.js';
import { Materials } from './service.js';
import { Shares } from './shares.js';
import { SlideLooks } from './slide-looks.js';
import { Tidying } from './tidying.js';
import { Turns } from './turns.js';
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
    const { files: store, knownFiles: known, imports, intake, log, slides, workers } = app;
    const turns = new Turns((tutor) => app.live.materialsChanged(tutor));
    const service = new Materials(app.db, known, turns);
    const arrivals = new Arrivals(
      { materials: service, intake, imports, slides, store, known, workers, log },
      maxUploadBytes,
    );
    const uploads = new Uploads(arrivals, store, {
      path: '/api/materials/uploads',
      folder: join(folder, 'uploads'),
      limit: maxUploadBytes,
    });
    // Not the one in which pictures are made ready for tutors who wait for them.
    const darkroom = new Darkroom(log);
    app.decorate('materials', service);
    app.decorate('shares', new Shares(app.db, service, turns));
    app.decorate('tidying', new Tidying(app.db, service, store, turns));
    app.decorate('arrivals', arrivals);
    app.decorate('uploads', uploads);
    app.decorate('uses', new Uses(app.db, app.bus));
    app.decorate('pagePictures', new PagePictures(store, darkroom, join(folder, 'small-pictures')));
    app.decorate(
      'slideLooks',
      new SlideLooks(
        { materials: service, imports, slides, queue: app.importQueue, office, store, workers },
        maxUploadBytes,
      ),
    );
    app.addHook('onClose', () => darkroom.close());
    await uploads.clear();
  },
  { name: 'materials', dependencies: ['database', 'accounts', 'live'] },
);
