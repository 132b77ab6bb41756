import { closeLesson, openLesson } from '@cuaderno/contract/routes/lessons';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { ProblemError } from '../problems/index.js';

export const tutorLessonRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(openLesson),
    handler: async ({ tutor, params }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      const { retiredAt, rules } = await app.courses.one(board.course, tutor.id);
      if (retiredAt !== null) throw new ProblemError('course-retired');
      const lesson = await app.lessons.start(board.course, board.id, tutor, {
        rules,
        endsAt: await app.timetable.plannedEnd(board.course, Date.now()),
      });
      // Anyone who comes has no file of which a page was taken out before.
      app.hiddenFiles.changed(board.id);
      await app.live.lessonOpened(lesson);
      return reply.status(201).send({ id: lesson.id, board: board.id });
    },
  });

  app.route({
    ...served(closeLesson),
    handler: async ({ tutor, params }) => {
      const lesson = app.lessons.get(params.lesson) ?? app.live.closing(params.lesson);
      if (lesson?.tutor !== tutor.id) throw new ProblemError('lesson-over');
      await app.closeLesson(lesson);
      return { record: lesson.id };
    },
  });
};
