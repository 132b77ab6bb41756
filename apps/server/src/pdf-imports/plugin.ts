import fp from 'fastify-plugin';
import { Imports } from './import.js';

declare module 'fastify' {
  interface FastifyInstance {
    imports: Imports;
  }
}

/** Pages of PDFs that become pages of boards. What was broken off when the server stopped goes on. */
export const pdfImports = fp(
  (app, _options, done) => {
    const { boards, bus, files, pdfReader, log, boardWriters } = app;
    app.decorate('imports', new Imports(boards, bus, files, pdfReader, log, boardWriters));
    app.addHook('onReady', () => app.imports.resume());
    done();
  },
  { name: 'pdf-imports', dependencies: ['files', 'boards', 'pdf', 'live'] },
);
