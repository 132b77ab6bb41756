import type { FastifyReply, FastifyRequest } from 'fastify';
import { createHash, randomBytes } from 'node:crypto';

const COOKIE = 'cuaderno_device';
/** As long as browsers keep a cookie at most, in seconds. */
const KEPT = 400 * 24 * 3600;

/**
 * SHA-256 of the random bytes by which a browser is known again; it is given some if it has none. It is a
 * browser that is remembered, never a name that somebody typed.
 */
export function deviceOf(request: FastifyRequest, reply: FastifyReply): string {
  const kept = request.cookies[COOKIE];
  const token = kept && /^[\w-]{40,60}$/.test(kept) ? kept : randomBytes(32).toString('base64url');
  reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: request.protocol === 'https',
    maxAge: KEPT,
  });
  return createHash('sha256').update(token).digest('base64url');
}
