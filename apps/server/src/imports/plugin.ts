import fp from 'fastify-plugin';
import { BoardFiles } from './board-files.js';
import { ImportRouter } from './import-router.js';

declare module 'fastify' {
  interface FastifyInstance {
    boardFiles: BoardFiles;
    importRouter: ImportRouter;
  }
}

/** Files that become boards, whatever they are. */
export const imports = fp(
  (
    app,
    limits: { readonly maxUploadBytes: number; readonly maxPages: number },
    done: () => void,
  ) => {
    const { boards, files: store, knownFiles: known, intake, boardWriters, boardFileReader } = app;
    const lend = () => app.db.lend();
    app.decorate(
      'boardFiles',
      new BoardFiles(boards, lend, store, known, intake, boardFileReader, boardWriters),
    );
    const { imports: pdfs, slides, boardFiles, importQueue: queue } = app;
    app.decorate(
      'importRouter',
      new ImportRouter({ known, store, imports: pdfs, slides, queue, boardFiles }, limits),
    );
    done();
  },
  { name: 'imports', dependencies: ['database', 'files', 'boards', 'intake', 'slides'] },
);
