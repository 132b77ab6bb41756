import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { ProblemError } from '../problems/index.js';

const tags = ['lessons'];

export const tutorLessonRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.post(
    '/boards/:board/lesson',
    {
      schema: {
        tags,
        summary: 'Open a lesson on a board; the course’s join link lets people in from now on',
        params: z.object({ board: Id }),
        response: { 201: z.object({ id: z.string(), board: z.string() }) },
      },
    },
    async ({ tutor, params }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      const { retiredAt, rules } = await app.courses.one(board.course, tutor.id);
      if (retiredAt !== null) throw new ProblemError('course-retired');
      const lesson = await app.lessons.start(board.course, board.id, tutor, {
        rules,
        endsAt: await app.timetable.plannedEnd(board.course, Date.now()),
      });
      // Whoever comes has no file of which a page was taken out before.
      app.hiddenFiles.changed(board.id);
      await app.live.lessonOpened(lesson);
      return reply.status(201).send({ id: lesson.id, board: lesson.board });
    },
  );

  app.post(
    '/lessons/:lesson/close',
    {
      schema: {
        tags,
        summary: 'Close a lesson: everyone out, the link shut, the record made',
        params: z.object({ lesson: Id }),
        response: { 200: z.object({ record: z.string() }) },
      },
    },
    async ({ tutor, params }) => {
      const lesson = app.lessons.get(params.lesson) ?? app.live.closing(params.lesson);
      if (lesson?.tutor !== tutor.id) throw new ProblemError('lesson-over');
      await app.closeLesson(lesson);
      return { record: lesson.id };
    },
  );
};
