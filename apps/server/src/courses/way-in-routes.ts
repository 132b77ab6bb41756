import {
  cancelGuestLink,
  createGuestLink,
  listGuestLinks,
  renewJoinLink,
  resumeCourse,
  retireCourse,
  setCourseRules,
  setDoorRule,
} from '@cuaderno/contract/routes/courses';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';

/** How students come into a course, and that nobody does any more. */
export const wayInRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(setDoorRule),
    handler: async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.setDoor(id, body.door);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(setCourseRules),
    handler: async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.setRules(id, body);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(renewJoinLink),
    handler: async ({ tutor, params }) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.courses.renewLink(id);
      const { linkToken, joinCode } = await app.courses.one(id, tutor.id);
      return { linkToken, joinCode };
    },
  });

  app.route({
    ...served(retireCourse),
    handler: async ({ tutor, params }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      if (app.lessons.ofCourse(id)) throw new ProblemError('lesson-open');
      await app.courses.retire(id);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(resumeCourse),
    handler: async ({ tutor, params }, reply) => {
      const { id, retiredAt } = await app.courses.one(params.course, tutor.id);
      if (retiredAt !== null) await app.courses.resume(id);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(listGuestLinks),
    handler: async ({ tutor, params }) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      return app.guestLinks.of(id);
    },
  });

  app.route({
    ...served(createGuestLink),
    handler: async ({ tutor, params, body }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      return reply.status(201).send(await app.guestLinks.make(id, body.guest, body.role));
    },
  });

  app.route({
    ...served(cancelGuestLink),
    handler: async ({ tutor, params }, reply) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      await app.guestLinks.end(params.link, id);
      return reply.status(204).send(null);
    },
  });
};
