import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { Deletion, DeletionWish, StudentData } from '@cuaderno/contract/student-data';

const tags = ['student data'];

/** What there is of a student, and deleting it. Names are in the body: addresses are written into logs. */
export const studentDataRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.post(
    '/students/data',
    {
      schema: {
        tags,
        summary: 'What there is of students of a name, lesson by lesson',
        body: DeletionWish.pick({ name: true }),
        response: { 200: StudentData },
      },
    },
    ({ tutor, body }) => app.studentsData.of(tutor.id, body.name),
  );

  app.post(
    '/students/delete',
    {
      schema: {
        tags,
        summary: 'Delete a student’s data for good, with a report of what was done',
        body: DeletionWish,
        response: { 200: Deletion },
      },
    },
    ({ tutor, body }) => app.deleting.delete(tutor.id, body),
  );

  app.get(
    '/students/deletions',
    {
      schema: {
        tags,
        summary: 'Reports of what was deleted, the newest first',
        response: { 200: z.object({ deletions: z.array(Deletion) }) },
      },
    },
    async ({ tutor }) => ({ deletions: await app.deleting.of(tutor.id) }),
  );
};
