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
    const { boards, bus, files, pdfReader, imports, log, lessons } = app;
    const hidden = new HiddenFiles(boards, bus, files, pdfReader, imports, log, lessons);
    bus.onHiddenChanged = (board, when) =>
      when === 'now' ? hidden.changed(board) : hidden.changedSoon(board);
    app.decorate('hiddenFiles', hidden);
    done();
  },
  {
    name: 'file-access',
    dependencies: ['files', 'boards', 'lessons', 'live', 'pdf', 'pdf-imports'],
  },
);
