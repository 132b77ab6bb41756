import { GivenRole } from '@cuaderno/core';
import type { By } from '@cuaderno/contract/routes/lessons';
import {
  findLesson,
  joinLesson,
  knockAgain,
  listCourseBoards,
  readDoor,
  readLesson,
} from '@cuaderno/contract/routes/lessons';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { Guesses, networkOf } from '../accounts/index.js';
import { served } from '../contract/served.js';
import type { GuestLink } from '../courses/guest-links.js';
import type { Course } from '../courses/service.js';
import { ProblemError } from '../problems/index.js';
import { deviceOf } from './device.js';
import { setPass } from './plugin.js';
import type { Student } from './plugin.js';

/**
 * Wrong codes an hour from one address: 30 in any sixty minutes, however they fall. Links are far too long to be
 * guessed, and aren't counted.
 */
const WRONG_CODES = 15;

/** Where a link or code leads. */
interface Way {
  readonly course: Course;
  readonly guest: GuestLink | null;
}

/** The way into a lesson: the link or code, a first name, the door. */
export const joinRoutes: FastifyPluginAsyncZod = async (app) => {
  const guesses = new Guesses(WRONG_CODES);

  const wayBy = async (by: By): Promise<Way | null> => {
    const guest = 'link' in by ? await app.guestLinks.byToken(by.link) : null;
    const course = guest ? await app.courses.byId(guest.course) : await app.courses.byJoin(by);
    return course && { course, guest };
  };

  const find = async (by: By, from: string): Promise<Way> => {
    const guessed = 'code' in by;
    if (guessed) await guesses.begin(from);
    const way = await wayBy(by);
    if (!way) throw new ProblemError('no-such-lesson');
    if (guessed) await guesses.right(from);
    if (way.course.retiredAt !== null) throw new ProblemError('course-retired');
    return way;
  };

  /** Who the person at this browser is already, if it came to that course's open lesson. */
  const before = (request: Parameters<typeof app.arrivalOf>[0], course: Course): Student | null => {
    try {
      const arrival = app.arrivalOf(request);
      return arrival.lesson.course === course.id ? arrival : null;
    } catch {
      return null;
    }
  };

  app.route({
    ...served(findLesson),
    handler: async (request, reply) => {
      const { name, ...by } = request.body;
      const { course, guest } = await find(by, networkOf(request));
      const open = app.lessons.ofCourse(course.id) !== undefined;
      if (!open) {
        // Anyone who waits for it to open is announced to its tutor.
        const device = deviceOf(request, reply);
        const known = guest?.guest ?? (await app.lessons.door.knownName(course.id, device));
        app.waitingRoom.early.seen(course.id, device, name ?? known);
      }
      return {
        course: course.name,
        tutor: await app.lessons.tutorName(course.tutor),
        open,
        nextAt: (await app.timetable.nextOfCourse(course.id, Date.now()))?.at ?? null,
        name: before(request, course)?.person.name ?? guest?.guest ?? null,
      };
    },
  });

  app.route({
    ...served(joinLesson),
    handler: async (request, reply) => {
      const { by, name } = request.body;
      const { course, guest } = await find(by, networkOf(request));
      const lesson = app.lessons.ofCourse(course.id);
      if (!lesson) throw new ProblemError('lesson-not-open');
      const device = deviceOf(request, reply);
      if (guest) await app.guestLinks.use(guest.id, device);
      const arrival = before(request, course);
      if (arrival?.person.name === name) {
        await app.lessons.door.again(lesson, arrival.person);
        setPass(request, reply, arrival);
        return { state: arrival.person.door };
      }
      const person = await app.lessons.door.knock(lesson, course.door, {
        name,
        device,
        guest: guest?.guest ?? null,
        role: guest?.role ?? 'student',
      });
      setPass(request, reply, { lesson, person });
      return { state: person.door };
    },
  });

  app.route({
    ...served(knockAgain),
    handler: async (request) => {
      const { lesson, person } = request.student;
      await app.lessons.door.again(lesson, person);
      return { state: person.door };
    },
  });

  app.route({
    ...served(readDoor),
    handler: async (request) => {
      const { lesson, person } = request.student;
      const course = await app.courses.one(lesson.course, lesson.tutor);
      return {
        course: course.name,
        tutor: await app.lessons.tutorName(lesson.tutor),
        name: person.name,
      };
    },
  });

  app.route({
    ...served(readLesson),
    handler: async (request, reply) => {
      const { lesson, person } = request.student;
      setPass(request, reply, request.student);
      const course = await app.courses.one(lesson.course, lesson.tutor);
      return {
        id: lesson.id,
        board: lesson.startBoard,
        courseId: course.id,
        course: course.name,
        title: await app.boards.title(lesson.startBoard),
        name: person.name,
        role: GivenRole.parse(person.role),
      };
    },
  });

  app.route({
    ...served(listCourseBoards),
    handler: ({ student: { lesson } }) => app.boards.ofCourse(lesson.course),
  });
};
