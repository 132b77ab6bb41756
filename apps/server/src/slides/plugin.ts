import fp from 'fastify-plugin';
import { join } from 'node:path';
import type { Config } from '../config.js';
import { DeckReader } from './deck-reader.js';
import { Office } from './office.js';
import { ImportQueue } from './queue.js';
import { Reports } from './reports.js';
import { SlideImports } from './slide-imports.js';

declare module 'fastify' {
  interface FastifyInstance {
    office: Office;
    reports: Reports;
    importQueue: ImportQueue;
    deckReader: DeckReader;
    slides: SlideImports;
  }
}

/** Decks of slides that become boards. */
export const slides = fp(
  async (app, { folder, office: program }: { folder: string; office: Config['office'] }) => {
    const office = new Office(join(folder, 'office-profile'), program);
    await office.tidy();
    const { boards, bus, files: store, intake: material, imports, log } = app;
    const [reports, decks] = [new Reports(app.db), new DeckReader(app.workers)];
    app.decorate('office', office);
    app.decorate('reports', reports);
    app.decorate('importQueue', new ImportQueue(log));
    app.decorate('deckReader', decks);
    app.decorate(
      'slides',
      new SlideImports({ boards, bus, store, material, imports, decks, office, reports, log }),
    );
    app.addHook('onClose', () => office.close());
  },
  {
    name: 'slides',
    dependencies: ['database', 'files', 'boards', 'live', 'intake', 'pdf-imports', 'workers'],
  },
);
