import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { nextLesson } from './next-lesson.js';
import type { Courses } from './service.js';
import type { Course } from './service.js';
import { RecordInfo } from '../records/shapes.js';
import { BoardShape, CourseShape, Slot, Title } from './shapes.js';

declare module 'fastify' {
  interface FastifyInstance {
    courses: Courses;
  }
}

/** Records on the first screen. */
const RECENT = 6;

const tags = ['courses'];
const Params = z.object({ course: z.string() });

export const courseRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  const shape = (course: Course): z.infer<typeof CourseShape> => {
    const lesson = app.lessons.ofCourse(course.id);
    const { id, name, linkToken, joinCode, slot, door, rules, retiredAt } = course;
    return {
      id,
      name,
      linkToken,
      joinCode,
      slot,
      door,
      rules,
      retiredAt,
      nextAt: slot && retiredAt === null ? nextLesson(slot, Date.now()) : null,
      lesson: lesson ? { id: lesson.id, board: lesson.board } : null,
    };
  };

  app.get(
    '/today',
    {
      schema: {
        tags,
        summary: 'The tutor’s first screen: courses with their next lessons, recent records',
        response: {
          200: z.object({ courses: z.array(CourseShape), records: z.array(RecordInfo) }),
        },
      },
    },
    async ({ tutor }) => ({
      courses: (await app.courses.of(tutor.id)).map(shape),
      records: await app.records.of({ tutor: tutor.id }, RECENT),
    }),
  );

  app.post(
    '/courses',
    {
      schema: {
        tags,
        summary: 'Make a course',
        body: z.object({ name: Title, slot: Slot.nullable().default(null) }),
        response: { 201: CourseShape },
      },
    },
    async ({ tutor, body }, reply) =>
      reply.status(201).send(shape(await app.courses.make(tutor.id, body.name, body.slot))),
  );

  app.get(
    '/courses/:course',
    {
      schema: {
        tags,
        summary: 'A course with its boards and records',
        params: Params,
        response: {
          200: z.object({
            course: CourseShape,
            boards: z.array(BoardShape),
            /** Boards that can be brought back. */
            takenOut: z.array(BoardShape),
            records: z.array(RecordInfo),
          }),
        },
      },
    },
    async ({ tutor, params }) => {
      const course = await app.courses.one(params.course, tutor.id);
      return {
        course: shape(course),
        boards: await app.boards.ofCourse(course.id),
        takenOut: await app.boards.takenOut(course.id),
        records: await app.records.of({ course: course.id }, 100),
      };
    },
  );
};
