import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { HandedFile, HandOverShape, Receiver } from '../handing-over.js';
import { route } from '../route.js';

export const listHandedFiles = route({
  method: 'GET',
  path: '/handed',
  who: 'device',
  tag: 'handing over',
  summary: 'What was handed to the person at this browser',
  answers: { 200: z.object({ files: z.array(HandedFile) }) },
});

export const downloadHandedFile = route({
  method: 'GET',
  path: '/handed/:id/file',
  who: 'device',
  tag: 'handing over',
  summary: 'A file that was handed over, to be kept',
  params: z.object({ id: Id }),
  answers: 'bytes',
});

export const listHandOvers = route({
  method: 'GET',
  path: '/courses/:course/hand-overs',
  who: 'tutor',
  tag: 'handing over',
  summary: 'To whom something can be handed in a course, what was handed over, and who has it',
  params: z.object({ course: Id }),
  answers: {
    200: z.object({ students: z.array(Receiver), handOvers: z.array(HandOverShape) }),
  },
});

export const handOver = route({
  method: 'POST',
  path: '/courses/:course/hand-overs',
  who: 'tutor',
  tag: 'handing over',
  summary: 'Hand a file to all students of a course, or to some',
  params: z.object({ course: Id }),
  body: z.strictObject({
    asset: Id,
    to: z.union([z.literal('all'), z.array(z.string().max(100)).min(1).max(200)]),
  }),
  answers: { 204: z.null() },
});

export const takeBackHandOver = route({
  method: 'POST',
  path: '/hand-overs/:id/take-back',
  who: 'tutor',
  tag: 'handing over',
  summary: 'Take back what was handed over; who has fetched it has it',
  params: z.object({ id: Id }),
  answers: { 204: z.null() },
});
