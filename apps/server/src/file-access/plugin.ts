import fp from 'fastify-plugin';
import { HiddenFiles } from './hidden-files.js';

declare module 'fastify' {
  interface FastifyInstance {
    hiddenFiles: HiddenFiles;
  }
}

/** Who may have which file. */
export const fileAccess = fp(
  (app, _options, done) => {
    const { boards, bus, live, files, pdfReader, imports, log, lessons } = app;
    const hidden = new HiddenFiles(boards, bus, files, pdfReader, imports, log, lessons);
    bus.onHiddenChanged = (board, when) =>
      when === 'now' ? hidden.changed(board) : hidden.changedSoon(board);
    // Anyone who comes to it has no file of which a page was taken out before.
    live.onBoardShown = (board) => hidden.changed(board);
    app.decorate('hiddenFiles', hidden);
    done();
  },
  {
    name: 'file-access',
    dependencies: ['files', 'boards', 'lessons', 'live', 'pdf', 'pdf-imports'],
  },
);
