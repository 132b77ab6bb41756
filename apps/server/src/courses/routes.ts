import type { CourseShape } from '@cuaderno/contract/courses';
import { createCourse, readCourse, readToday } from '@cuaderno/contract/routes/courses';
import type { Occurrence } from '@cuaderno/core/timetable';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import type * as z from 'zod';
import { served } from '../contract/served.js';
import { weeklyWish } from './next-lesson.js';
import type { Course } from './service.js';

/** Records on the first screen. */
const RECENT = 6;
export const courseRoutes: FastifyPluginAsyncZod = async (app) => {
  const shape = (course: Course, next: Occurrence | null): z.infer<typeof CourseShape> => {
    const lesson = app.lessons.ofCourse(course.id);
    const { id, name, linkToken, joinCode, door, rules, retiredAt } = course;
    const comes = retiredAt === null ? next : null;
    return {
      id,
      name,
      linkToken,
      joinCode,
      door,
      rules,
      retiredAt,
      nextAt: comes?.at ?? null,
      nextUntil: comes?.until ?? null,
      lesson: lesson ? { id: lesson.id, board: lesson.tutorBoard } : null,
    };
  };

  const shaped = async (course: Course): Promise<z.infer<typeof CourseShape>> =>
    shape(course, await app.timetable.nextOfCourse(course.id, Date.now()));
  const all = async (tutor: string): Promise<z.infer<typeof CourseShape>[]> => {
    const next = await app.timetable.next(tutor, Date.now());
    return (await app.courses.of(tutor)).map((course) =>
      shape(course, next.get(course.id) ?? null),
    );
  };

  app.route({
    ...served(readToday),
    handler: async ({ tutor }) => ({
      courses: await all(tutor.id),
      records: await app.recordNotes.listed(await app.records.of({ tutor: tutor.id }, RECENT)),
    }),
  });

  app.route({
    ...served(createCourse),
    handler: async ({ tutor, body }, reply) => {
      const { name, slot } = body;
      const course = await app.courses.make(tutor.id, name);
      if (slot) await app.timetable.make(course.id, weeklyWish(slot, Date.now()));
      return reply.status(201).send(await shaped(course));
    },
  });

  app.route({
    ...served(readCourse),
    handler: async ({ tutor, params }) => {
      const course = await app.courses.one(params.course, tutor.id);
      app.pdfReader.expect();
      return {
        course: await shaped(course),
        boards: await app.boards.ofCourse(course.id),
        takenOut: await app.boards.takenOut(course.id),
        records: await app.recordNotes.listed(await app.records.of({ course: course.id }, 100)),
      };
    },
  });
};
