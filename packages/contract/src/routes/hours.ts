import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { Correction, HourRow } from '../hours.js';
import { route } from '../route.js';
import { Zone } from '../time-zone.js';

const Moment = z.coerce.number().int().min(0).max(8.64e15);

const Span = z.object({ from: Moment, to: Moment });

/** What is saved may be of one course alone. */
const Saved = Span.extend({ course: Id.optional() });

export const listHours = route({
  method: 'GET',
  path: '/hours',
  who: 'tutor',
  tag: 'hours',
  summary: 'Lessons as they count, the latest first',
  query: Span,
  answers: { 200: z.object({ rows: z.array(HourRow) }) },
});

export const correctHours = route({
  method: 'POST',
  path: '/hours/:lesson/correct',
  who: 'tutor',
  tag: 'hours',
  summary: 'Correct how long a lesson counts, with the reason',
  params: z.object({ lesson: Id }),
  body: z.object({
    minutes: z
      .int('Write how many minutes it counts.')
      .min(0, 'A lesson counts no less than 0 minutes.')
      .max(1440, 'A lesson counts no more than 1440 minutes: a day.'),
    why: z.string().trim().min(1, 'Say why: it stays with the lesson.').max(300),
  }),
  answers: { 201: Correction },
});

export const downloadHoursTable = route({
  method: 'GET',
  path: '/hours.csv',
  who: 'tutor',
  tag: 'hours',
  summary: 'Lessons as they count, as a table (RFC 4180)',
  query: Saved.extend(Zone.shape),
  answers: 'bytes',
});

export const downloadHoursCalendar = route({
  method: 'GET',
  path: '/hours.ics',
  who: 'tutor',
  tag: 'hours',
  summary: 'Lessons as they were held, as iCalendar (RFC 5545)',
  query: Saved,
  answers: 'bytes',
});
