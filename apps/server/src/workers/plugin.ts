import fp from 'fastify-plugin';
import { Workers } from './workers.js';

declare module 'fastify' {
  interface FastifyInstance {
    workers: Workers;
  }
}

export const workers = fp(
  (app, _options, done) => {
    const all = new Workers();
    app.decorate('workers', all);
    app.addHook('onClose', () => all.close());
    done();
  },
  { name: 'workers' },
);
