import { createBoard, importBoard, readBoard } from '@cuaderno/contract/routes/boards';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Readable } from 'node:stream';
import { served } from '../contract/served.js';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';

export const boardRoutes: FastifyPluginAsyncZod<{ maxUploadBytes: number }> = async (
  app,
  { maxUploadBytes },
) => {
  // The file is taken as it comes, from the line to the disk: never whole in memory.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  app.route({
    ...served(createBoard),
    handler: async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const board = await app.imports.empty(course.id, body.title, tutor.id);
      return reply.status(201).send(board);
    },
  });

  app.route({
    ...served(importBoard),
    bodyLimit: maxUploadBytes + 1024,
    handler: async (request, reply) => {
      const { tutor, params, query } = request;
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > maxUploadBytes)
        throw new ProblemError('file-too-large', { detail: tooLarge(maxUploadBytes) });
      const course = await app.courses.one(params.course, tutor.id);
      const file = await app.files.put(request.body as Readable, maxUploadBytes);
      const brought = await app.importRouter.importFile(file, query.name, course.id, tutor.id);
      app.arrivals.addImported(course, query.name, file);
      if (brought.kind === 'job') return reply.status(202).send({ job: brought.job });
      const { board, file: shown, annotations } = brought;
      return reply.status(201).send({ ...board, file: shown, annotations });
    },
  });

  app.route({
    ...served(readBoard),
    handler: async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      app.pdfReader.expect();
      const { id, name, linkToken, joinCode, rules } = await app.courses.one(
        board.course,
        tutor.id,
      );
      const lesson = app.lessons.ofCourse(id);
      return {
        board,
        course: {
          id,
          name,
          linkToken,
          joinCode,
          rules,
          lesson: lesson ? { id: lesson.id, board: lesson.tutorBoard } : null,
        },
      };
    },
  });
};
