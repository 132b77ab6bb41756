import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { Note, NoteKind } from '@cuaderno/contract/records';

const tags = ['records'];
const Params = z.object({ lesson: Id });
/** Longest note, in characters: several pages. */
const MOST = 10_000;

export const noteRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/lessons/:lesson/notes',
    {
      schema: {
        tags,
        summary: 'What the tutor wrote of a lesson: summary and until next time, every version',
        params: Params,
        response: { 200: z.object({ notes: z.array(Note) }) },
      },
    },
    async ({ tutor, params }) => ({ notes: await app.recordNotes.all(params.lesson, tutor.id) }),
  );

  app.post(
    '/lessons/:lesson/notes',
    {
      schema: {
        tags,
        summary: 'Write a note, or amend one: former versions stay',
        params: Params,
        body: z.object({ kind: NoteKind, text: z.string().max(MOST), follows: Id.nullable() }),
        response: { 201: Note },
      },
    },
    async ({ tutor, params, body }, reply) =>
      reply.status(201).send(await app.recordNotes.write(params.lesson, tutor.id, body)),
  );
};
