import * as z from 'zod';
import { route } from '../route.js';

const Well = z.object({ status: z.literal('ok') });

export const readHealth = route({
  method: 'GET',
  path: '/health',
  who: 'anyone',
  tag: 'health',
  summary: 'How the server is: whether it keeps what is written, and errors that nobody expected',
  answers: {
    200: z.object({
      status: z.enum(['ok', 'disk-full']),
      /** Since the server was started. */
      uncaught: z.number().int().min(0),
      /** When there was one last, in ms since 1970. */
      lastUncaughtAt: z.number().nullable(),
      /** For how long it has been running, in seconds. */
      upFor: z.number().int().min(0),
    }),
  },
});

export const readLiveness = route({
  method: 'GET',
  path: '/health/live',
  who: 'anyone',
  tag: 'health',
  summary: 'The process runs',
  answers: { 200: Well },
});

export const readReadiness = route({
  method: 'GET',
  path: '/health/ready',
  who: 'anyone',
  tag: 'health',
  summary: 'The database answers',
  answers: { 200: Well },
});
