import { DoorState, PersonName } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { Guesses } from '../accounts/index.js';
import type { GuestLink } from '../courses/guest-links.js';
import type { Course } from '../courses/service.js';
import { ProblemError } from '../problems/index.js';
import { deviceOf } from './device.js';
import { setPass } from './plugin.js';
import type { Student } from './plugin.js';

const tags = ['lessons'];

/**
 * Wrong codes an hour from one address: 30 in any sixty minutes, however they fall. Links are far too long to be
 * guessed, and aren't counted.
 */
const WRONG_CODES = 15;

/** How a student found the lesson: by the link, or by the code as they typed it. */
const By = z.union([
  z.object({ link: z.string().min(1).max(100) }),
  z.object({ code: z.string().min(1).max(100) }),
]);
type By = z.infer<typeof By>;

/** Who waits may say so, with their name. */
const Look = z.union([
  z.object({ link: z.string().min(1).max(100), name: PersonName.optional() }),
  z.object({ code: z.string().min(1).max(100), name: PersonName.optional() }),
]);

const Entrance = z.object({
  course: z.string(),
  tutor: z.string(),
  open: z.boolean(),
  /** When the next lesson begins, in ms since 1970, if the course meets every week. */
  nextAt: z.number().nullable(),
  /** The name under which this browser came to the lesson already, or a guest's. */
  name: z.string().nullable(),
});

const Standing = z.object({ state: DoorState });

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

  /** Whoever this browser is already, if it came to that course's open lesson. */
  const before = (request: Parameters<typeof app.arrivalOf>[0], course: Course): Student | null => {
    try {
      const arrival = app.arrivalOf(request);
      return arrival.lesson.course === course.id ? arrival : null;
    } catch {
      return null;
    }
  };

  app.post(
    '/join/look',
    {
      schema: {
        tags,
        summary: 'Whose lesson a link or code leads to, whether it is open, and when the next is',
        body: Look,
        response: { 200: Entrance },
      },
    },
    async (request, reply) => {
      const { name, ...by } = request.body;
      const { course, guest } = await find(by, request.ip);
      const open = app.lessons.ofCourse(course.id) !== undefined;
      if (!open) {
        // Whoever waits for it to open is told of to its tutor.
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
  );

  app.post(
    '/join',
    {
      schema: {
        tags,
        summary: 'Come to an open lesson with a first name; its door may have to be opened first',
        body: z.object({ by: By, name: PersonName }),
        response: { 200: Standing },
      },
    },
    async (request, reply) => {
      const { by, name } = request.body;
      const { course, guest } = await find(by, request.ip);
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
      });
      setPass(request, reply, { lesson, person });
      return { state: person.door };
    },
  );

  app.post(
    '/door/knock',
    {
      schema: {
        tags,
        summary: 'Knock once more, after “not now” or after being sent out',
        response: { 200: Standing },
      },
    },
    async (request) => {
      const { lesson, person } = app.arrivalOf(request);
      await app.lessons.door.again(lesson, person);
      return { state: person.door };
    },
  );

  app.get(
    '/door',
    {
      schema: {
        tags,
        summary: 'The lesson at whose door this student is',
        response: { 200: z.object({ course: z.string(), tutor: z.string(), name: z.string() }) },
      },
    },
    async (request) => {
      const { lesson, person } = app.arrivalOf(request);
      const course = await app.courses.one(lesson.course, lesson.tutor);
      return {
        course: course.name,
        tutor: await app.lessons.tutorName(lesson.tutor),
        name: person.name,
      };
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
