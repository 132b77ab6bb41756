import { PersonName } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { ProblemError } from '../problems/index.js';
import { Guesses } from './guesses.js';
import { endSession, setSession } from './plugin.js';

const Email = z
  .string()
  .trim()
  .max(254)
  .regex(/^[^\s@]+@[^\s@]+$/, 'Please enter an e-mail address.');
const NewPassword = z
  .string()
  .min(10, 'Choose a password of at least 10 characters.')
  .max(200, 'That password is too long. Use at most 200 characters.');

const Me = z.object({
  tutor: z.object({ id: z.string(), name: z.string() }).nullable(),
  /** Whether a tutor's account is there; if not, the first visit makes it. */
  setUp: z.boolean(),
  demo: z.boolean(),
});

const Token = z.string().min(1).max(100);

/** Letters an hour that are sent to who forgot their password, for one address. */
const RESETS = 10;

const tags = ['accounts'];

export const accountRoutes: FastifyPluginAsyncZod<{ demo: boolean }> = async (app, { demo }) => {
  app.get(
    '/me',
    { schema: { tags, summary: 'Who is signed in', response: { 200: Me } } },
    async (request) => {
      const tutor = await app.tutorOf(request);
      return {
        tutor: tutor && { id: tutor.id, name: tutor.name },
        setUp: tutor !== null || (await app.accounts.isSetUp()),
        demo,
      };
    },
  );

  app.post(
    '/set-up',
    {
      schema: {
        tags,
        summary: 'Make the tutor’s account, on the first visit',
        body: z.object({ name: PersonName, email: Email, password: NewPassword }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      const { name, email, password } = request.body;
      const tutor = await app.accounts.setUp(name, email, password);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/sign-in',
    {
      schema: {
        tags,
        summary: 'Sign in',
        body: z.object({ email: z.string().max(254), password: z.string().max(200) }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      const { email, password } = request.body;
      const tutor = await app.accounts.signIn(email, password, request.ip);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/sign-out',
    { schema: { tags, summary: 'Sign out', response: { 204: z.null() } } },
    async (request, reply) => {
      await endSession(request, reply);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/sign-out/everywhere',
    {
      onRequest: app.tutorOnly,
      schema: {
        tags,
        summary: 'Sign out on every browser but this one',
        response: { 204: z.null() },
      },
    },
    async ({ tutor, session }, reply) => {
      await app.sessions.endAll(tutor.id, session.key);
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/account',
    {
      onRequest: app.tutorOnly,
      schema: {
        tags,
        summary: 'The account of who is signed in',
        response: { 200: z.object({ name: z.string(), email: z.string() }) },
      },
    },
    ({ tutor: { name, email } }) => ({ name, email }),
  );

  app.post(
    '/account/password',
    {
      onRequest: app.tutorOnly,
      schema: {
        tags,
        summary: 'Change the password; other browsers are signed out',
        body: z.object({ old: z.string().max(200), password: NewPassword }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, session, body }, reply) => {
      await app.accounts.changePassword(tutor, body.old, body.password);
      await app.sessions.endAll(tutor.id, session.key);
      return reply.status(204).send(null);
    },
  );

  const asked = new Guesses(RESETS);
  app.post(
    '/password/forgotten',
    {
      schema: {
        tags,
        summary: 'Send a letter with a link by which the password can be set anew',
        body: z.object({ email: Email }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      await asked.begin(request.ip);
      app.passwordLetters.send(request.body.email);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/password/reset',
    {
      schema: {
        tags,
        summary: 'Set the password anew, by the link of a letter; every browser is signed out',
        body: z.object({ token: Token, password: NewPassword }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      const tutor = await app.accounts.reset(request.body.token, request.body.password);
      await app.sessions.endAll(tutor.id);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/invitations',
    {
      onRequest: app.tutorOnly,
      schema: {
        tags,
        summary: 'Invite another tutor: a link that is good once, for two weeks',
        response: { 201: z.object({ token: z.string() }) },
      },
    },
    async ({ tutor }, reply) =>
      reply.status(201).send({ token: await app.accounts.invite(tutor.id) }),
  );

  app.post(
    '/invitations/look',
    {
      schema: {
        tags,
        summary: 'Who sent an invitation',
        body: z.object({ token: Token }),
        response: { 200: z.object({ by: z.string() }) },
      },
    },
    async ({ body }) => ({ by: await app.accounts.inviter(body.token) }),
  );

  app.post(
    '/invitations/accept',
    {
      schema: {
        tags,
        summary: 'Make the account of a tutor who was invited',
        body: z.object({ token: Token, name: PersonName, email: Email, password: NewPassword }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      const { token, name, email, password } = request.body;
      const tutor = await app.accounts.accept(token, name, email, password);
      setSession(request, reply, await app.sessions.open(tutor));
      return reply.status(204).send(null);
    },
  );

  if (demo) {
    app.post(
      '/demo/sign-in',
      { schema: { tags, summary: 'Sign in as the demo tutor', response: { 204: z.null() } } },
      async (request, reply) => {
        const tutor = await app.accounts.first();
        if (!tutor) throw new ProblemError('unavailable');
        setSession(request, reply, await app.sessions.open(tutor));
        return reply.status(204).send(null);
      },
    );
  }
};
