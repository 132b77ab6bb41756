import Fastify from 'fastify';
import type { FastifyInstance } from 'fastify';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { site } from './plugin.js';

describe('the built web application', () => {
  let folder: string;
  let app: FastifyInstance;

  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'site-'));
    await mkdir(join(folder, 'media'));
    await Promise.all([
      writeFile(join(folder, 'index.html'), '<cua-root ngCspNonce="__NONCE__"></cua-root>'),
      writeFile(join(folder, 'chunk-AB12CD34.js'), 'export {};'),
      writeFile(join(folder, 'chunk-AB12CD34.js.br'), 'packed'),
      writeFile(join(folder, 'media/latin-AB12CD34.woff2'), 'letters'),
      writeFile(join(folder, 'main-ab12cd34.js'), 'export {};'),
      writeFile(join(folder, 'mark.svg'), '<svg/>'),
    ]);
    app = Fastify();
    await app.register(site, { folder });
  });
  afterAll(async () => {
    await app.close();
    await rm(folder, { recursive: true });
  });

  const get = (url: string, headers = {}) => app.inject({ url, headers });

  it('is kept by browsers for good where a name says what is in a file, and else for an hour', async () => {
    const named = ['/chunk-AB12CD34.js', '/main-ab12cd34.js', '/media/latin-AB12CD34.woff2'];
    for (const url of named)
      expect((await get(url)).headers['cache-control']).toBe('public, max-age=31536000, immutable');
    const packed = await get('/chunk-AB12CD34.js', { 'accept-encoding': 'br' });
    expect(packed.headers['content-encoding']).toBe('br');
    expect(packed.headers['cache-control']).toBe('public, max-age=31536000, immutable');
    expect((await get('/mark.svg')).headers['cache-control']).toBe('public, max-age=3600');
  });

  it('is one page at every address, which runs nothing but its own and is shown in no other', async () => {
    const { headers, body } = await get('/courses/of-maren');
    const policy = String(headers['content-security-policy']);
    const [, nonce] = /'nonce-([^']+)'/.exec(policy) ?? [];
    expect(body).toContain(`ngCspNonce="${nonce}"`);
    expect(policy).toContain("default-src 'none'");
    expect(headers['x-frame-options']).toBe('SAMEORIGIN');
    expect(headers['referrer-policy']).toBe('no-referrer');
    expect(headers['cache-control']).toBe('no-store');
    expect(headers['permissions-policy']).toContain('microphone=(self), camera=()');
  });

  it('says little with each script: a visit over a thin line fetches some twenty', async () => {
    const { headers } = await get('/chunk-AB12CD34.js', { 'accept-encoding': 'br' });
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    const said = Object.entries(headers).reduce((sum, [k, v]) => sum + `${k}: ${v}`.length + 2, 0);
    expect(said).toBeLessThanOrEqual(480);
  });

  it('has no page for what was asked of the server, nor for a file that isn’t there', async () => {
    for (const url of ['/api/nothing', '/chunk-ZZ99ZZ99.js', '/chunk-AB12CD34.map'])
      expect((await get(url)).statusCode).toBe(404);
  });
});
