import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { route } from '../route.js';

const LetterShape = z.object({
  id: Id,
  to: z.string(),
  subject: z.string(),
  body: z.string(),
  at: z.number(),
});

export const listLetters = route({
  method: 'GET',
  path: '/mailbox',
  who: 'tutor',
  tag: 'mailbox',
  summary: 'Letters that would have been sent, the newest first',
  answers: { 200: z.object({ letters: z.array(LetterShape) }) },
});

export const removeLetter = route({
  method: 'POST',
  path: '/mailbox/:letter/remove',
  who: 'tutor',
  tag: 'mailbox',
  summary: 'Throw a letter away',
  params: z.object({ letter: Id }),
  answers: { 204: z.null() },
});
