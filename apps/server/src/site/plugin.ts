import fastifyStatic from '@fastify/static';
import helmet from '@fastify/helmet';
import fp from 'fastify-plugin';
import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { problem } from '../problems/index.js';

/** Stands in the built page where each visit's own nonce goes. */
const NONCE = '__NONCE__';

/**
 * The built web application, and the headers that keep pages to themselves: no inline script, and
 * nothing from any other origin.
 */
export const site = fp(
  async (app, { folder }: { folder: string | null }) => {
    await app.register(helmet, {
      contentSecurityPolicy: false,
      hsts: false,
      crossOriginEmbedderPolicy: false,
      referrerPolicy: { policy: 'no-referrer' },
    });
    await app.register(fastifyStatic, {
      root: folder ?? process.cwd(),
      serve: folder !== null,
      wildcard: false,
      index: false,
      preCompressed: true,
      globIgnore: ['**/index.html*'],
      setHeaders: (response, path) => {
        const named = /-[A-Z0-9]{8}\.(js|css|woff2)/.test(path);
        response.setHeader(
          'cache-control',
          named ? 'public, max-age=31536000, immutable' : 'public, max-age=3600',
        );
      },
    });

    const page = folder && (await readFile(join(folder, 'index.html'), 'utf8'));
    app.setNotFoundHandler((request, reply) => {
      const wantsPage =
        page &&
        request.method === 'GET' &&
        !/^\/(api|live)\//.test(request.url) &&
        !/\.\w+$/.test(request.url.split('?')[0]!);
      if (!wantsPage) {
        const details = problem('not-found');
        return reply
          .status(404)
          .header('content-type', 'application/problem+json; charset=utf-8')
          .send(JSON.stringify(details));
      }
      const nonce = randomBytes(16).toString('base64');
      return reply
        .header('content-type', 'text/html; charset=utf-8')
        .header('cache-control', 'no-store')
        .header('content-security-policy', policy(nonce))
        .send(page.replaceAll(NONCE, nonce));
    });
  },
  { name: 'site' },
);

function policy(nonce: string): string {
  return [
    "default-src 'none'",
    // pdf.js decodes some pictures with WebAssembly that comes with it.
    "script-src 'self' 'wasm-unsafe-eval'",
    `style-src 'self' 'nonce-${nonce}'`,
    "img-src 'self' data: blob:",
    "media-src 'self' blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}
