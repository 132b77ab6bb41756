import fp from 'fastify-plugin';
import { HandOvers } from './hand-overs.js';

declare module 'fastify' {
  interface FastifyInstance {
    handOvers: HandOvers;
  }
}

/** Files that tutors hand to students, to keep. */
export const handingOver = fp(
  (app, _options, done) => {
    app.decorate('handOvers', new HandOvers(app.db, app.shares));
    done();
  },
  { name: 'handing-over', dependencies: ['database', 'lessons', 'materials'] },
);
