import cookie from '@fastify/cookie';
import type { FastifyReply, FastifyRequest } from 'fastify';
import fp from 'fastify-plugin';
import { ProblemError } from '../problems/index.js';
import { Passwords } from './passwords.js';
import { Accounts } from './service.js';
import type { Tutor } from './service.js';
import { SESSION_MS, Sessions } from './sessions.js';
import type { Session } from './sessions.js';

declare module 'fastify' {
  interface FastifyInstance {
    accounts: Accounts;
    sessions: Sessions;
    /** Hook: lets only a signed-in tutor through. */
    tutorOnly(request: FastifyRequest, reply: FastifyReply): Promise<void>;
    /** The tutor whose cookie came with the request, if any. */
    tutorOf(request: FastifyRequest): Promise<Tutor | null>;
    /** The session whose cookie came with the request, if it is on. */
    sessionOf(request: FastifyRequest): Promise<Session | null>;
  }
  interface FastifyRequest {
    /** Set where `tutorOnly` let the request through. */
    tutor: Tutor;
    session: Session;
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
  if (token) await request.server.sessions.end(token);
  reply.clearCookie(COOKIE, { path: '/' });
}

/** Who is asking: sessions of tutors, read from a cookie no script can see. */
export const accounts = fp(
  async (app, { passwordCost }: { passwordCost: number }) => {
    await app.register(cookie);
    const sessions = new Sessions(app.db);
    app.decorate('accounts', new Accounts(app.db, new Passwords(passwordCost)));
    app.decorate('sessions', sessions);
    app.decorate('sessionOf', async (request: FastifyRequest) => {
      const token = request.cookies[COOKIE];
      return token ? sessions.find(token) : null;
    });
    app.decorate(
      'tutorOf',
      async (request: FastifyRequest) => (await app.sessionOf(request))?.tutor ?? null,
    );
    app.decorateRequest('tutor');
    app.decorateRequest('session');
    app.decorate('tutorOnly', async (request: FastifyRequest, reply: FastifyReply) => {
      const session = await app.sessionOf(request);
      if (!session) throw new ProblemError('not-signed-in');
      request.tutor = session.tutor;
      request.session = session;
      // A session that is used doesn't end in the middle of a week of work.
      if (await sessions.renew(session)) setSession(request, reply, request.cookies[COOKIE]!);
    });
    app.addHook('onRoute', (route) => {
      if (route.config?.who === 'tutor')
        route.onRequest = [app.tutorOnly, ...[route.onRequest ?? []].flat()];
    });
  },
  { name: 'accounts', dependencies: ['database'] },
);
