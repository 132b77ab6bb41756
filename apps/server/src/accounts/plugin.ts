import cookie from '@fastify/cookie';
import type { FastifyReply, FastifyRequest } from 'fastify';
import fp from 'fastify-plugin';
import { ProblemError } from '../problems/index.js';
import { Accounts, SESSION_MS } from './service.js';
import type { Tutor } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    accounts: Accounts;
    /** Hook: lets only a signed-in tutor through. */
    tutorOnly(request: FastifyRequest): Promise<void>;
    /** The tutor whose cookie came with the request, if any. */
    tutorOf(request: FastifyRequest): Promise<Tutor | null>;
  }
  interface FastifyRequest {
    /** Set where `tutorOnly` let the request through. */
    tutor: Tutor;
  }
}

const COOKIE = 'cuaderno_session';

export function setSession(request: FastifyRequest, reply: FastifyReply, token: string): void {
  reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: request.protocol === 'https',
    maxAge: SESSION_MS / 1000,
  });
}

export async function endSession(request: FastifyRequest, reply: FastifyReply): Promise<void> {
  const token = request.cookies[COOKIE];
  if (token) await request.server.accounts.closeSession(token);
  reply.clearCookie(COOKIE, { path: '/' });
}

/** Who is asking: sessions of tutors, read from a cookie no script can see. */
export const accounts = fp(
  async (app) => {
    await app.register(cookie);
    const service = new Accounts(app.db);
    app.decorate('accounts', service);
    app.decorate('tutorOf', async (request: FastifyRequest) => {
      const token = request.cookies[COOKIE];
      return token ? service.bySession(token) : null;
    });
    app.decorateRequest('tutor');
    app.decorate('tutorOnly', async (request: FastifyRequest) => {
      const tutor = await app.tutorOf(request);
      if (!tutor) throw new ProblemError('not-signed-in');
      request.tutor = tutor;
    });
  },
  { name: 'accounts', dependencies: ['database'] },
);
