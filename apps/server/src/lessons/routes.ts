import { closeLesson, openCourseLesson, openLesson } from '@cuaderno/contract/routes/lessons';
import type { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type { Tutor } from '../accounts/index.js';
import { served } from '../contract/served.js';
import type { Course } from '../courses/service.js';
import { ProblemError } from '../problems/index.js';

export const tutorLessonRoutes: FastifyPluginAsyncZod = async (app) => {
  /** Throws `course-retired`, `lesson-running`. */
  const open = async (tutor: Tutor, course: Course, board: Id) => {
    if (course.retiredAt !== null) throw new ProblemError('course-retired');
    const lesson = await app.lessons.start(course.id, board, tutor, {
      rules: course.rules,
      endsAt: await app.timetable.plannedEnd(course.id, Date.now()),
    });
    // Anyone who comes has no file of which a page was taken out before.
    app.hiddenFiles.changed(board);
    await app.live.lessonOpened(lesson);
    return { id: lesson.id, board };
  };

  app.route({
    ...served(openLesson),
    handler: async ({ tutor, params }, reply) => {
      const board = await app.boards.one(params.board, tutor.id);
      const course = await app.courses.one(board.course, tutor.id);
      return reply.status(201).send(await open(tutor, course, board.id));
    },
  });

  app.route({
    ...served(openCourseLesson),
    handler: async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      // Nothing is made for a lesson that can't be opened.
      if (course.retiredAt !== null) throw new ProblemError('course-retired');
      if (app.lessons.ofCourse(course.id)) throw new ProblemError('lesson-running');
      const last = body.on === 'last' ? await app.lessons.lastBoard(course.id) : null;
      const board = last ?? (await app.imports.empty(course.id, body.title, tutor.id)).id;
      return reply.status(201).send(await open(tutor, course, board));
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
