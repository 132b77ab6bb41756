import {
  acceptInvitation,
  changePassword,
  createInvitation,
  readAccount,
  readInvitation,
  readMe,
  readShortcuts,
  requestPasswordReset,
  resetPassword,
  setShortcuts,
  setZone,
  setUp,
  signIn,
  signInToDemo,
  signOut,
  signOutEverywhere,
} from '@cuaderno/contract/routes/accounts';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';
import { Guesses } from './guesses.js';
import { networkOf } from './network.js';
import { endSession, setSession } from './plugin.js';

/** Letters an hour that are sent to who forgot their password, for one address. */
const RESETS = 10;
export const accountRoutes: FastifyPluginAsyncZod<{ demo: boolean }> = async (app, { demo }) => {
  app.route({
    ...served(readMe),
    handler: async (request) => {
      const tutor = await app.tutorOf(request);
      return {
        tutor: tutor && {
          id: tutor.id,
          name: tutor.name,
          zone: await app.accounts.zone(tutor.id),
        },
        setUp: tutor !== null || (await app.accounts.isSetUp()),
        demo,
      };
    },
  });

  app.route({
    ...served(setUp),
    handler: async (request, reply) => {
      const { name, email, password } = request.body;
      const tutor = await app.accounts.setUp(name, email, password);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(signIn),
    handler: async (request, reply) => {
      const { email, password } = request.body;
      const tutor = await app.accounts.signIn(email, password, networkOf(request));
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(signOut),
    handler: async (request, reply) => {
      await endSession(request, reply);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(signOutEverywhere),
    handler: async ({ tutor, session }, reply) => {
      await app.sessions.endAll(tutor.id, session.key);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(readAccount),
    handler: async ({ tutor: { id, name, email } }) => ({
      ...{ name, email },
      zone: await app.accounts.zone(id),
    }),
  });

  app.route({
    ...served(setZone),
    handler: async ({ tutor, body }, reply) => {
      await app.accounts.setZone(tutor.id, body.zone);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(readShortcuts),
    handler: ({ tutor }) => app.accounts.shortcuts(tutor.id),
  });

  app.route({
    ...served(setShortcuts),
    handler: async ({ tutor, body }, reply) => {
      await app.accounts.setShortcuts(tutor.id, body);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(changePassword),
    handler: async ({ tutor, session, body }, reply) => {
      await app.accounts.changePassword(tutor, body.old, body.password);
      await app.sessions.endAll(tutor.id, session.key);
      return reply.status(204).send(null);
    },
  });

  const asked = new Guesses(RESETS);
  app.route({
    ...served(requestPasswordReset),
    handler: async (request, reply) => {
      await asked.begin(networkOf(request));
      app.passwordLetters.send(request.body.email);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(resetPassword),
    handler: async (request, reply) => {
      const tutor = await app.accounts.reset(request.body.token, request.body.password);
      await app.sessions.endAll(tutor.id);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(createInvitation),
    handler: async ({ tutor }, reply) =>
      reply.status(201).send({ token: await app.accounts.invite(tutor.id) }),
  });

  app.route({
    ...served(readInvitation),
    handler: async ({ body }) => ({ by: await app.accounts.inviter(body.token) }),
  });

  app.route({
    ...served(acceptInvitation),
    handler: async (request, reply) => {
      const { token, name, email, password } = request.body;
      const tutor = await app.accounts.accept(token, name, email, password);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  });

  if (demo) {
    app.route({
      ...served(signInToDemo),
      handler: async (request, reply) => {
        const tutor = await app.accounts.first();
        if (!tutor) throw new ProblemError('unavailable');
        setSession(request, reply, await app.sessions.open(tutor));
        return reply.status(204).send(null);
      },
    });
  }
};
