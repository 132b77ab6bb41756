import { FileHash } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import * as z from 'zod';
import { BoardShape, CourseShape, ImportedAnnotations, Title } from '@cuaderno/contract/courses';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';

const tags = ['boards'];

export const boardRoutes: FastifyPluginAsyncZod<{ maxUploadBytes: number }> = async (
  app,
  { maxUploadBytes },
) => {
  app.addHook('onRequest', app.tutorOnly);

  // The file is taken as it comes, from the line to the disk: never whole in memory.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  app.post(
    '/courses/:course/boards',
    {
      schema: {
        tags,
        summary: 'Make a board with one empty page',
        params: z.object({ course: z.string() }),
        body: z.object({ title: Title }),
        response: { 201: BoardShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const board = await app.imports.empty(course.id, body.title, tutor.id);
      return reply.status(201).send(board);
    },
  );

  app.post(
    '/courses/:course/boards/bring',
    {
      bodyLimit: maxUploadBytes + 1024,
      schema: {
        tags,
        summary:
          'Make a board of a PDF or of slides, a page for each of theirs, or open a board file; the body is the file',
        consumes: ['application/octet-stream'],
        params: z.object({ course: z.string() }),
        querystring: z.object({ name: z.string().max(20_000) }),
        response: {
          /** Slides: the import to ask after. */
          202: z.object({ job: z.string() }),
          201: BoardShape.extend({
            /** The PDF that it is made of. */
            file: FileHash.nullable(),
            annotations: ImportedAnnotations,
          }),
        },
      },
    },
    async (request, reply) => {
      const { tutor, params, query } = request;
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > maxUploadBytes)
        throw new ProblemError('file-too-large', { detail: tooLarge(maxUploadBytes) });
      const course = await app.courses.one(params.course, tutor.id);
      const file = await app.files.put(request.body as Readable, maxUploadBytes);
      const brought = await app.importRouter.bring(file, query.name, course.id, tutor.id);
      app.arrivals.brought(course, query.name, file);
      if (brought.kind === 'job') return reply.status(202).send({ job: brought.job });
      const { board, file: shown, annotations } = brought;
      return reply.status(201).send({ ...board, file: shown, annotations });
    },
  );

  app.get(
    '/boards/:board',
    {
      schema: {
        tags,
        summary: 'What a board is called and where it belongs',
        params: z.object({ board: z.string() }),
        response: {
          200: z.object({
            board: BoardShape,
            course: CourseShape.pick({
              id: true,
              name: true,
              linkToken: true,
              joinCode: true,
              lesson: true,
            }),
          }),
        },
      },
    },
    async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      app.pdfReader.expect();
      const { id, name, linkToken, joinCode } = await app.courses.one(board.course, tutor.id);
      const lesson = app.lessons.ofCourse(id);
      return {
        board,
        course: {
          id,
          name,
          linkToken,
          joinCode,
          lesson: lesson ? { id: lesson.id, board: lesson.board } : null,
        },
      };
    },
  );
};
