import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { LateAnswer, LateLinesShape, OwnLateLines } from '../late-lines.js';
import { route } from '../route.js';

export const offerLateLines = route({
  method: 'POST',
  path: '/late-lines/of/:person',
  who: 'device',
  tag: 'late lines',
  summary: 'What a student wrote while their line was away; the body is an `ops` message',
  consumes: ['application/octet-stream'],
  params: z.object({ person: Id }),
  answers: { 200: LateAnswer },
});

export const listOwnLateLines = route({
  method: 'GET',
  path: '/late-lines/own',
  who: 'device',
  tag: 'late lines',
  summary: 'What became of the late lines of this browser',
  answers: { 200: z.object({ lessons: z.array(OwnLateLines) }) },
});

export const acknowledgeLateLines = route({
  method: 'POST',
  path: '/late-lines/own/told',
  who: 'device',
  tag: 'late lines',
  summary: 'The student has read it',
  answers: { 204: z.null() },
});

export const listLateLines = route({
  method: 'GET',
  path: '/late-lines',
  who: 'tutor',
  tag: 'late lines',
  summary: 'Late lines that wait, by lesson, student and board; the newest first',
  answers: { 200: z.object({ waiting: z.array(LateLinesShape) }) },
});

export const readLateLines = route({
  method: 'GET',
  path: '/late-lines/:lesson/:person/:board',
  who: 'tutor',
  tag: 'late lines',
  summary:
    'Late lines of one student of a lesson on one of its boards (MessagePack: a list of operations)',
  params: z.object({ lesson: Id, person: Id, board: Id }),
  answers: 'bytes',
});

export const decideLateLines = route({
  method: 'POST',
  path: '/late-lines/:lesson/:person/:board',
  who: 'tutor',
  tag: 'late lines',
  summary: 'Add them to the page as it is now or to the lesson’s record, or leave them',
  params: z.object({ lesson: Id, person: Id, board: Id }),
  body: z.strictObject({ to: z.enum(['page', 'record', 'nowhere']) }),
  answers: {
    200: z.object({
      settled: z.number(),
      /** Their page isn't there any more: they wait on. */
      without: z.number(),
    }),
  },
});
