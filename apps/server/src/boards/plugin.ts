import fp from 'fastify-plugin';
import { BoardFileReader } from './board-file-reader.js';
import { Boards } from './service.js';
import { BoardWriters } from './writers.js';

declare module 'fastify' {
  interface FastifyInstance {
    boards: Boards;
    boardWriters: BoardWriters;
    boardFileReader: BoardFileReader;
  }
}

/** Boards, who wrote on them, and boards that are files. What is on them is in their logs. */
export const boards = fp(
  (app, _options, done) => {
    app.decorate('boards', new Boards(app.db, app.knownFiles));
    app.decorate('boardWriters', new BoardWriters(app.db));
    app.decorate('boardFileReader', new BoardFileReader(app.workers));
    done();
  },
  { name: 'boards', dependencies: ['database', 'files', 'courses', 'workers'] },
);
