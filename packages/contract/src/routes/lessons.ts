import { PersonName } from '@cuaderno/core/people';
import { Id } from '@cuaderno/core/id';
import { DoorState, GivenRole } from '@cuaderno/core/permissions';
import * as z from 'zod';
import { BoardShape, Title } from '../courses.js';
import { route } from '../route.js';

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

/** How a student found the lesson: by the link, or by the code as they typed it. */
export const By = z.union([
  z.object({ link: z.string().min(1).max(100) }),
  z.object({ code: z.string().min(1).max(100) }),
]);
export type By = z.infer<typeof By>;

const Standing = z.object({ state: DoorState });

export const findLesson = route({
  method: 'POST',
  path: '/join/find',
  who: 'anyone',
  tag: 'lessons',
  summary: 'Whose lesson a link or code leads to, whether it is open, and when the next is',
  body: Look,
  answers: { 200: Entrance },
});

export const joinLesson = route({
  method: 'POST',
  path: '/join',
  who: 'anyone',
  tag: 'lessons',
  summary: 'Come to an open lesson with a first name; its door may have to be opened first',
  body: z.object({ by: By, name: PersonName }),
  answers: { 200: Standing },
});

export const knockAgain = route({
  method: 'POST',
  path: '/door/knock',
  who: 'arrival',
  tag: 'lessons',
  summary: 'Knock once more, after “not now” or after being sent out',
  answers: { 200: Standing },
});

export const readDoor = route({
  method: 'GET',
  path: '/door',
  who: 'arrival',
  tag: 'lessons',
  summary: 'The lesson at whose door this student is',
  answers: { 200: z.object({ course: z.string(), tutor: z.string(), name: z.string() }) },
});

export const readLesson = route({
  method: 'GET',
  path: '/lesson',
  who: 'student',
  tag: 'lessons',
  summary: 'The lesson this student is in',
  answers: {
    200: z.object({
      id: z.string(),
      board: z.string(),
      courseId: Id,
      course: z.string(),
      title: z.string(),
      name: z.string(),
      role: GivenRole,
    }),
  },
});

export const listCourseBoards = route({
  method: 'GET',
  path: '/lesson/boards',
  who: 'helper',
  tag: 'lessons',
  summary: 'The boards of the lesson’s course, for who helps in it',
  answers: { 200: z.array(BoardShape) },
});

export const openLesson = route({
  method: 'POST',
  path: '/boards/:board/lesson',
  who: 'tutor',
  tag: 'lessons',
  summary: 'Open a lesson on a board; the course’s join link lets people in from now on',
  params: z.object({ board: Id }),
  answers: { 201: z.object({ id: z.string(), board: z.string() }) },
});

export const openCourseLesson = route({
  method: 'POST',
  path: '/courses/:course/lesson',
  who: 'tutor',
  tag: 'lessons',
  summary:
    'Open a lesson of a course without choosing a board: on the one that was used last, or on an empty one',
  params: z.object({ course: Id }),
  body: z.strictObject({
    on: z.enum(['last', 'empty']),
    /** What an empty board is called. */
    title: Title,
  }),
  answers: { 201: z.object({ id: z.string(), board: z.string() }) },
});

export const closeLesson = route({
  method: 'POST',
  path: '/lessons/:lesson/close',
  who: 'tutor',
  tag: 'lessons',
  summary: 'Close a lesson: everyone out, the link shut, the record made',
  params: z.object({ lesson: Id }),
  answers: { 200: z.object({ record: z.string() }) },
});
