import { DoorRule, PersonName, Rules } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { ProblemError } from '../problems/index.js';
import { GuestLinkShape } from '@cuaderno/contract/courses';

const tags = ['courses'];
const Params = z.object({ course: z.string() });

/** How students come into a course, and that nobody does any more. */
export const wayInRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.post(
    '/courses/:course/door',
    {
      schema: {
        tags,
        summary: 'Who comes in without being let in',
        params: Params,
        body: z.object({ door: DoorRule }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.setDoor(id, body.door);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/courses/:course/rules',
    {
      schema: {
        tags,
        summary: 'What students may do when a lesson begins',
        params: Params,
        body: Rules,
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.setRules(id, body);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/courses/:course/link',
    {
      schema: {
        tags,
        summary: 'A new join link and code; the old ones lead nowhere from now on',
        params: Params,
        response: { 200: z.object({ linkToken: z.string(), joinCode: z.string() }) },
      },
    },
    async ({ tutor, params }) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.renewLink(id);
      const { linkToken, joinCode } = await app.courses.one(id, tutor.id);
      return { linkToken, joinCode };
    },
  );

  app.post(
    '/courses/:course/retire',
    {
      schema: {
        tags,
        summary: 'Retire a course: its link dies for good, boards and records stay',
        params: Params,
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      if (app.lessons.ofCourse(id)) throw new ProblemError('lesson-open');
      await app.courses.retire(id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/courses/:course/resume',
    {
      schema: {
        tags,
        summary: 'Take a retired course up again, with a new link',
        params: Params,
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      const { id, retiredAt } = await app.courses.one(params.course, tutor.id);
      if (retiredAt !== null) await app.courses.resume(id);
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/courses/:course/guests',
    {
      schema: {
        tags,
        summary: 'Links that were made for one guest each',
        params: Params,
        response: { 200: z.array(GuestLinkShape) },
      },
    },
    async ({ tutor, params }) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      return app.guestLinks.of(id);
    },
  );

  app.post(
    '/courses/:course/guests',
    {
      schema: {
        tags,
        summary: 'Make a link for one guest',
        params: Params,
        body: z.object({ guest: PersonName }),
        response: { 201: GuestLinkShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      return reply.status(201).send(await app.guestLinks.make(id, body.guest));
    },
  );

  app.post(
    '/courses/:course/guests/:link/end',
    {
      schema: {
        tags,
        summary: 'A guest’s link leads nowhere from now on',
        params: Params.extend({ link: z.string() }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.guestLinks.end(params.link, id);
      return reply.status(204).send(null);
    },
  );
};
