import fp from 'fastify-plugin';
import { LateLines } from './late-lines.js';

declare module 'fastify' {
  interface FastifyInstance {
    lateLines: LateLines;
  }
}

/** What students wrote while their line was away, until the tutor has seen it. */
export const lateLines = fp(
  (app, _options, done) => {
    app.decorate('lateLines', new LateLines(app.db));
    done();
  },
  { name: 'late-lines', dependencies: ['database', 'lessons', 'live'] },
);
