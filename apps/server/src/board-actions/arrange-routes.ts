import {
  copyBoard,
  movePages,
  placeBoard,
  readBoardPreview,
  removeBoard,
  renameBoard,
  restoreBoard,
  useFiles,
} from '@cuaderno/contract/routes/boards';
import { operation, pack, pagesInOrder, pageSnapshot } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { hostOf } from '../live/lesson-bus.js';
import { ProblemError } from '../problems/index.js';

/** Boards of a course put in order: named, copied, moved, taken out and brought back. */
export const arrangeRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(readBoardPreview),
    handler: async (request, reply) => {
      const board = await app.boards.one(request.params.board, request.tutor.id);
      // Asked for on every visit, and mostly nothing has changed: then the board isn't even opened.
      const tag = `"${await app.logs.lastPlace(board.id)}"`;
      reply.header('cache-control', 'private, no-cache').header('etag', tag);
      if (request.headers['if-none-match'] === tag) return reply.status(304).send();
      const host = await hostOf(app.bus, board.id);
      const page = await host.between((state) => pagesInOrder(state)[0]);
      if (!page) throw new ProblemError('not-found');
      return reply
        .header('content-type', 'application/vnd.msgpack')
        .send(Buffer.from(pack(pageSnapshot(page))));
    },
  });

  app.route({
    ...served(renameBoard),
    handler: async ({ tutor, params, body }) => {
      const board = await app.boards.one(params.board, tutor.id);
      const host = await hostOf(app.bus, board.id);
      const rename = operation({
        kind: 'board.rename',
        title: body.title,
        former: board.title,
      });
      await host.applyAs([rename], { id: tutor.id, role: 'tutor', trust: 'hands' });
      return app.boards.one(board.id, tutor.id);
    },
  });

  app.route({
    ...served(placeBoard),
    handler: async ({ tutor, params, body }) => {
      const board = await app.boards.one(params.board, tutor.id);
      await app.boards.move(board, body.before);
      return app.boards.ofCourse(board.course);
    },
  });

  app.route({
    ...served(copyBoard),
    handler: async ({ tutor, params, body }, reply) => {
      const { course, title, lessonInk } = body;
      const board = await app.boards.one(params.board, tutor.id);
      const to = await app.courses.one(course ?? board.course, tutor.id);
      const wish = { course: to.id, title, lessonInk };
      return reply.status(201).send(await app.copies.copyBoard(board.id, wish, tutor.id));
    },
  });

  app.route({
    ...served(removeBoard),
    handler: async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      if (app.lessons.onBoard(board.id)) throw new ProblemError('board-in-lesson');
      await app.boards.remove(board.id);
      return board;
    },
  });

  app.route({
    ...served(restoreBoard),
    handler: async ({ tutor, params }) => app.boards.restore(params.board, tutor.id),
  });

  app.route({
    ...served(useFiles),
    handler: async ({ tutor, params, body }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      for (const hash of body.files) {
        if (!(await app.boards.fileOfTutor(tutor.id, hash))) throw new ProblemError('not-found');
        await app.boards.useFile(board.id, hash);
      }
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(movePages),
    handler: async ({ tutor, params, body }) => {
      const from = await app.boards.one(params.board, tutor.id);
      const to = await app.boards.one(body.to, tutor.id);
      if (from.id === to.id) throw new ProblemError('bad-request');
      return app.copies.movePages(from.id, body.pages, to.id, tutor.id);
    },
  });
};
