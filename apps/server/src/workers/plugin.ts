import fp from 'fastify-plugin';
import { Workers } from './workers.js';

declare module 'fastify' {
  interface FastifyInstance {
    workers: Workers;
  }
}

export interface WorkersOptions {
  /** Those that several servers of one process share: none of them ends them. */
  readonly shared?: Workers | undefined;
}

export const workers = fp(
  (app, { shared }: WorkersOptions, done) => {
    const all = shared ?? new Workers();
    app.decorate('workers', all);
    app.addHook('onClose', () => (shared ? shared.settled() : all.close()));
    done();
  },
  { name: 'workers' },
);
