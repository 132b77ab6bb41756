import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { writeCompletedLessons } from '@cuaderno/formats/icalendar';
import { attachment } from '../files/attachment.js';
import { Zone } from '@cuaderno/contract/time-zone';
import { completedLessons } from './completed-lessons.js';
import { hoursTable } from './hours-table.js';
import { Correction, HourRow } from '@cuaderno/contract/hours';

const tags = ['hours'];
const Moment = z.coerce.number().int().min(0).max(8.64e15);
const Span = z.object({ from: Moment, to: Moment });
/** What is saved may be of one course alone. */
const Saved = Span.extend({ course: Id.optional() });

/** Hours, by which a tutor is paid. */
export const hourRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/hours',
    {
      schema: {
        tags,
        summary: 'Lessons as they count, the latest first',
        querystring: Span,
        response: { 200: z.object({ rows: z.array(HourRow) }) },
      },
    },
    async ({ tutor, query }) => ({ rows: await app.hours.of(tutor.id, query.from, query.to) }),
  );

  app.post(
    '/hours/:lesson/correct',
    {
      schema: {
        tags,
        summary: 'Correct how long a lesson counts, with the reason',
        params: z.object({ lesson: Id }),
        body: z.object({
          minutes: z.number().int().min(0).max(1440),
          why: z.string().trim().min(1, 'Say why: it stays with the lesson.').max(300),
        }),
        response: { 201: Correction },
      },
    },
    async ({ tutor, params, body }, reply) =>
      reply
        .status(201)
        .send(await app.hours.correct(tutor.id, params.lesson, body.minutes, body.why)),
  );

  app.get(
    '/hours.csv',
    {
      schema: {
        tags,
        summary: 'Lessons as they count, as a table (RFC 4180)',
        querystring: Saved.extend(Zone.shape),
      },
    },
    async ({ tutor, query }, reply) => {
      const rows = await app.hours.of(tutor.id, query.from, query.to, query.course);
      return reply
        .header('content-type', 'text/csv; charset=utf-8; header=present')
        .header('content-disposition', attachment('Hours.csv'))
        .send(hoursTable(rows, query.zone));
    },
  );

  app.get(
    '/hours.ics',
    {
      schema: {
        tags,
        summary: 'Lessons as they were held, as iCalendar (RFC 5545)',
        querystring: Saved,
      },
    },
    async ({ tutor, query }, reply) => {
      const rows = await app.hours.of(tutor.id, query.from, query.to, query.course);
      return reply
        .header('content-type', 'text/calendar; charset=utf-8')
        .header('content-disposition', attachment('Lessons.ics'))
        .send(writeCompletedLessons(completedLessons(rows), Date.now()));
    },
  );
};
