import fp from 'fastify-plugin';
import { Copies } from './copies.js';

declare module 'fastify' {
  interface FastifyInstance {
    copies: Copies;
  }
}

/** What a tutor does with whole boards. */
export const boardActions = fp(
  (app, _options, done) => {
    app.decorate('copies', new Copies(app.boards, app.bus, app.logs, app.boardWriters));
    done();
  },
  { name: 'board-actions', dependencies: ['boards', 'live'] },
);
