import { FileHash, Id, operation, pack, pagesInOrder, pageSnapshot } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { BoardShape, Title } from '@cuaderno/contract/courses';
import { hostOf } from '../live/lesson-bus.js';
import { ProblemError } from '../problems/index.js';

const tags = ['boards'];
const params = z.object({ board: Id });

/** Boards of a course put in order: named, copied, moved, taken out and brought back. */
export const arrangeRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/boards/:board/cover',
    {
      schema: {
        tags,
        summary: 'The board’s first page, as a packed snapshot (MessagePack), to draw it small',
        params,
      },
    },
    async (request, reply) => {
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
  );

  app.post(
    '/boards/:board/name',
    {
      schema: {
        tags,
        summary: 'Give a board another name',
        params,
        body: z.object({ title: Title }),
        response: { 200: BoardShape },
      },
    },
    async ({ tutor, params, body }) => {
      const board = await app.boards.one(params.board, tutor.id);
      const host = await hostOf(app.bus, board.id);
      const rename = operation({
        kind: 'board.rename',
        title: body.title,
        former: board.title,
      });
      await host.take([rename], { id: tutor.id, role: 'tutor', trust: 'hands' });
      return app.boards.one(board.id, tutor.id);
    },
  );

  app.post(
    '/boards/:board/place',
    {
      schema: {
        tags,
        summary: 'Put a board before another of its course, or at the end',
        params,
        body: z.object({ before: Id.nullable() }),
        response: { 200: z.array(BoardShape) },
      },
    },
    async ({ tutor, params, body }) => {
      const board = await app.boards.one(params.board, tutor.id);
      await app.boards.move(board, body.before);
      return app.boards.ofCourse(board.course);
    },
  );

  app.post(
    '/boards/:board/copy',
    {
      schema: {
        tags,
        summary: 'Copy a board, to its own course or another; with what lessons wrote, or clean',
        params,
        body: z.object({ course: z.string().optional(), title: Title, lessonInk: z.boolean() }),
        response: { 201: BoardShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const { course, title, lessonInk } = body;
      const board = await app.boards.one(params.board, tutor.id);
      const to = await app.courses.one(course ?? board.course, tutor.id);
      const wish = { course: to.id, title, lessonInk };
      return reply.status(201).send(await app.copies.copyBoard(board.id, wish, tutor.id));
    },
  );

  app.post(
    '/boards/:board/remove',
    {
      schema: {
        tags,
        summary: 'Take a board out of its course; it can be brought back',
        params,
        response: { 200: BoardShape },
      },
    },
    async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      if (app.lessons.onBoard(board.id)) throw new ProblemError('board-in-lesson');
      await app.boards.remove(board.id);
      return board;
    },
  );

  app.post(
    '/boards/:board/restore',
    {
      schema: {
        tags,
        summary: 'Bring back a board that was taken out',
        params,
        response: { 200: BoardShape },
      },
    },
    async ({ tutor, params }) => app.boards.restore(params.board, tutor.id),
  );

  app.post(
    '/boards/:board/files',
    {
      schema: {
        tags,
        summary: 'Let files of one’s own boards be seen on this one, as what is pasted needs them',
        params,
        body: z.object({ files: z.array(FileHash).min(1).max(500) }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      for (const hash of body.files) {
        if (!(await app.boards.fileOfTutor(tutor.id, hash))) throw new ProblemError('not-found');
        await app.boards.useFile(board.id, hash);
      }
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/boards/:board/pages/move',
    {
      schema: {
        tags,
        summary: 'Take pages, with what is on them, to the end of another board',
        params,
        body: z.object({ pages: z.array(Id).min(1).max(5000), to: Id }),
        response: { 200: z.object({ pages: z.array(Id) }) },
      },
    },
    async ({ tutor, params, body }) => {
      const from = await app.boards.one(params.board, tutor.id);
      const to = await app.boards.one(body.to, tutor.id);
      if (from.id === to.id) throw new ProblemError('bad-request');
      return app.copies.movePages(from.id, body.pages, to.id, tutor.id);
    },
  );
};
