import { Id, PersonName } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { Throttle } from '../accounts/index.js';
import type { Course } from '../courses/service.js';
import { ProblemError } from '../problems/index.js';
import { setPass } from './plugin.js';
import type { Student } from './plugin.js';

const tags = ['lessons'];

/** Wrong codes from one address before it slows down. */
const FREE_GUESSES = 8;
/** Students in one lesson at most. */
const MAX_STUDENTS = 60;

/** How a student found the lesson: by the link, or by the code as they typed it. */
const By = z.union([
  z.object({ link: z.string().min(1).max(100) }),
  z.object({ code: z.string().min(1).max(100) }),
]);

const Door = z.object({
  course: z.string(),
  tutor: z.string(),
  open: z.boolean(),
  /** The name under which this browser is in the lesson already. */
  name: z.string().nullable(),
});

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
      const lesson = await app.lessons.start(board.course, board.id, tutor);
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
      const lesson = app.lessons.get(params.lesson);
      if (lesson?.tutor !== tutor.id) throw new ProblemError('lesson-over');
      await app.live.closeLesson(lesson, (at, seq) => app.records.seal(lesson, at, seq));
      return { record: lesson.id };
    },
  );
};

export const joinRoutes: FastifyPluginAsyncZod = async (app) => {
  const guesses = new Throttle(FREE_GUESSES);

  const find = async (by: z.infer<typeof By>, from: string): Promise<Course> => {
    guesses.check(from);
    const course = await app.courses.byJoin(by);
    if (!course) {
      guesses.failed(from);
      throw new ProblemError('no-such-lesson');
    }
    guesses.succeeded(from);
    return course;
  };

  /** The student this browser is already, if it is one in that course’s open lesson. */
  const known = (request: Parameters<typeof app.studentOf>[0], course: Course): Student | null => {
    try {
      const student = app.studentOf(request);
      return student.lesson.course === course.id ? student : null;
    } catch {
      return null;
    }
  };

  app.post(
    '/join/look',
    {
      schema: {
        tags,
        summary: 'Whose lesson a link or code leads to, and whether it is open',
        body: By,
        response: { 200: Door },
      },
    },
    async (request) => {
      const course = await find(request.body, request.ip);
      return {
        course: course.name,
        tutor: await app.lessons.tutorName(course.tutor),
        open: app.lessons.ofCourse(course.id) !== undefined,
        name: known(request, course)?.person.name ?? null,
      };
    },
  );

  app.post(
    '/join',
    {
      schema: {
        tags,
        summary: 'Go into an open lesson with a first name',
        body: z.object({ by: By, name: PersonName }),
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      const { by, name } = request.body;
      const course = await find(by, request.ip);
      const lesson = app.lessons.ofCourse(course.id);
      if (!lesson) throw new ProblemError('lesson-not-open');
      const before = known(request, course);
      if (before?.person.name === name) {
        setPass(request, reply, before);
      } else {
        if (lesson.students().length >= MAX_STUDENTS) throw new ProblemError('slow-down');
        setPass(request, reply, { lesson, person: await app.lessons.arrive(lesson, name) });
      }
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/lesson',
    {
      schema: {
        tags,
        summary: 'The lesson this student is in',
        response: {
          200: z.object({
            id: z.string(),
            board: z.string(),
            course: z.string(),
            title: z.string(),
            name: z.string(),
          }),
        },
      },
    },
    async (request, reply) => {
      const student = app.studentOf(request);
      const { lesson, person } = student;
      setPass(request, reply, student);
      const course = await app.courses.one(lesson.course, lesson.tutor);
      return {
        id: lesson.id,
        board: lesson.board,
        course: course.name,
        title: await app.boards.title(lesson.board),
        name: person.name,
      };
    },
  );
};
