import fp from 'fastify-plugin';

/** Less than this within the time that is given is no progress, in bytes. */
const PROGRESS = 1000;

/**
 * Ends requests whose bodies don't come: anyone who sends nothing for a minute keeps a connection, and what was begun for
 * it, from others.
 * @param patienceMs how long a body may make no progress, in ms
 */
export const slowBodies = fp(
  (app, { patienceMs }: { patienceMs: number }, done) => {
    app.addHook('onRequest', (request, _reply, next) => {
      const { raw } = request;
      const { socket } = raw;
      const hasBody = raw.headers['transfer-encoding'] || Number(raw.headers['content-length']) > 0;
      if (raw.complete || !hasBody || !socket?.bytesRead) return next();
      let seen = socket.bytesRead;
      const timer = setInterval(() => {
        if (raw.complete) return clearInterval(timer);
        const progress = socket.bytesRead - seen;
        seen = socket.bytesRead;
        if (progress >= PROGRESS) return;
        request.log.info('a body that did not come was given up');
        socket.destroy();
      }, patienceMs).unref();
      raw.once('close', () => clearInterval(timer));
      next();
    });
    done();
  },
  { name: 'slow-bodies' },
);
