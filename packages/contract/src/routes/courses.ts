import { PersonName } from '@cuaderno/core/people';
import { DoorRule, GivenRole, Rules } from '@cuaderno/core/permissions';
import * as z from 'zod';
import { BoardShape, CourseShape, GuestLinkShape, Slot, Title } from '../courses.js';
import { ListedRecord } from '../records.js';
import { route } from '../route.js';

export const readToday = route({
  method: 'GET',
  path: '/today',
  who: 'tutor',
  tag: 'courses',
  summary: 'The tutor’s first screen: courses with their next lessons, recent records',
  answers: {
    200: z.object({ courses: z.array(CourseShape), records: z.array(ListedRecord) }),
  },
});

export const createCourse = route({
  method: 'POST',
  path: '/courses',
  who: 'tutor',
  tag: 'courses',
  summary: 'Make a course',
  body: z.object({ name: Title, slot: Slot.nullable().default(null) }),
  answers: { 201: CourseShape },
});

export const readCourse = route({
  method: 'GET',
  path: '/courses/:course',
  who: 'tutor',
  tag: 'courses',
  summary: 'A course with its boards and records',
  params: z.object({ course: z.string() }),
  answers: {
    200: z.object({
      course: CourseShape,
      boards: z.array(BoardShape),
      /** Boards that can be brought back. */
      takenOut: z.array(BoardShape),
      records: z.array(ListedRecord),
    }),
  },
});

export const setDoorRule = route({
  method: 'POST',
  path: '/courses/:course/door',
  who: 'tutor',
  tag: 'courses',
  summary: 'Who comes in without being let in',
  params: z.object({ course: z.string() }),
  body: z.object({ door: DoorRule }),
  answers: { 204: z.null() },
});

export const setCourseRules = route({
  method: 'POST',
  path: '/courses/:course/rules',
  who: 'tutor',
  tag: 'courses',
  summary: 'What students may do when a lesson begins',
  params: z.object({ course: z.string() }),
  body: Rules,
  answers: { 204: z.null() },
});

export const renewJoinLink = route({
  method: 'POST',
  path: '/courses/:course/link',
  who: 'tutor',
  tag: 'courses',
  summary: 'A new join link and code; the old ones lead nowhere from now on',
  params: z.object({ course: z.string() }),
  answers: { 200: z.object({ linkToken: z.string(), joinCode: z.string() }) },
});

export const retireCourse = route({
  method: 'POST',
  path: '/courses/:course/retire',
  who: 'tutor',
  tag: 'courses',
  summary: 'Retire a course: its link dies for good, boards and records stay',
  params: z.object({ course: z.string() }),
  answers: { 204: z.null() },
});

export const resumeCourse = route({
  method: 'POST',
  path: '/courses/:course/resume',
  who: 'tutor',
  tag: 'courses',
  summary: 'Take a retired course up again, with a new link',
  params: z.object({ course: z.string() }),
  answers: { 204: z.null() },
});

export const listGuestLinks = route({
  method: 'GET',
  path: '/courses/:course/guests',
  who: 'tutor',
  tag: 'courses',
  summary: 'Links that were made for one guest each',
  params: z.object({ course: z.string() }),
  answers: { 200: z.array(GuestLinkShape) },
});

export const createGuestLink = route({
  method: 'POST',
  path: '/courses/:course/guests',
  who: 'tutor',
  tag: 'courses',
  summary: 'Make a link for one guest',
  params: z.object({ course: z.string() }),
  body: z.object({ guest: PersonName, role: GivenRole.default('student') }),
  answers: { 201: GuestLinkShape },
});

export const cancelGuestLink = route({
  method: 'POST',
  path: '/courses/:course/guests/:link/end',
  who: 'tutor',
  tag: 'courses',
  summary: 'A guest’s link leads nowhere from now on',
  params: z.object({ course: z.string() }).extend({ link: z.string() }),
  answers: { 204: z.null() },
});
