import fastifyStatic from '@fastify/static';
import helmet from '@fastify/helmet';
import fp from 'fastify-plugin';
import { randomBytes } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { problem } from '../problems/index.js';

/** Stands in the built page where each visit's own nonce goes. */
const NONCE = '__NONCE__';

/** Files whose names say what is in them: under one name there is never anything else. */
const CONTENT_NAMED = /-[A-Z0-9]{8}\.(js|css|woff2)/i;
const FOR_GOOD = 'public, max-age=31536000, immutable';
const AN_HOUR = 'public, max-age=3600';
/** A page is given the microphone where somebody switches it on, and nothing else of the machine. */
const PERMISSIONS = 'microphone=(self), camera=(), display-capture=(), geolocation=()';
/** Headers that say how a page is opened and what it may do; of a script they say nothing. */
const OF_PAGES = [
  'cross-origin-opener-policy',
  'origin-agent-cluster',
  'referrer-policy',
  'x-frame-options',
];

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
      // Nothing that Cuaderno runs in reads these.
      xDnsPrefetchControl: false,
      xDownloadOptions: false,
      xPermittedCrossDomainPolicies: false,
      xXssProtection: false,
    });
    await app.register(fastifyStatic, {
      root: folder ?? process.cwd(),
      serve: folder !== null,
      wildcard: false,
      index: false,
      preCompressed: true,
      globIgnore: ['**/index.html*'],
      // Said below: its own would be put over ours.
      cacheControl: false,
      setHeaders: (response, path) => {
        response.setHeader('cache-control', CONTENT_NAMED.test(path) ? FOR_GOOD : AN_HOUR);
      },
    });
    // A visit fetches some twenty scripts: over a thin line what is said of each counts.
    app.addHook('onSend', async (request, reply) => {
      if (!CONTENT_NAMED.test(request.url)) return;
      for (const header of OF_PAGES) reply.raw.removeHeader(header);
      // Nobody asks again whether it has changed.
      for (const header of ['etag', 'last-modified']) reply.removeHeader(header);
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
        .header('permissions-policy', PERMISSIONS)
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
