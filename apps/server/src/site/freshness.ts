import fp from 'fastify-plugin';

/**
 * Says of every answer under `/api` how long it holds. What a route says itself stays; all else is as it is this
 * moment, errors above all: RFC 9110 (15.1) lets a browser keep a 404 or 410 that says nothing, and a student who was
 * told once that a lesson is over would be told so in every later one.
 */
export const freshness = fp(
  (app, _options, done) => {
    app.addHook('onSend', (request, reply, payload, next) => {
      const isError = reply.statusCode >= 400;
      if (request.url.startsWith('/api/') && (isError || !reply.hasHeader('cache-control')))
        reply.header('cache-control', 'no-store');
      next(null, payload);
    });
    done();
  },
  { name: 'freshness' },
);
