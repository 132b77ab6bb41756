import fp from 'fastify-plugin';
import { PdfReader } from './pdf-reader.js';

declare module 'fastify' {
  interface FastifyInstance {
    pdfReader: PdfReader;
  }
}

export const pdf = fp(
  (app, _options, done) => {
    app.decorate('pdfReader', new PdfReader(app.workers));
    done();
  },
  { name: 'pdf', dependencies: ['workers'] },
);
