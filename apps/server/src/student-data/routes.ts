import {
  deleteStudentData,
  listDeletions,
  readStudentData,
} from '@cuaderno/contract/routes/student-data';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';

/** What there is of a student, and deleting it. Names are in the body: addresses are written into logs. */
export const studentDataRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(readStudentData),
    handler: ({ tutor, body }) => app.studentsData.of(tutor.id, body.name),
  });

  app.route({
    ...served(deleteStudentData),
    handler: ({ tutor, body }) => app.deleting.delete(tutor.id, body),
  });

  app.route({
    ...served(listDeletions),
    handler: async ({ tutor }) => ({ deletions: await app.deleting.of(tutor.id) }),
  });
};
