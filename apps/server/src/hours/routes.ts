import {
  correctHours,
  downloadHoursCalendar,
  downloadHoursTable,
  listHours,
} from '@cuaderno/contract/routes/hours';
import { writeCompletedLessons } from '@cuaderno/formats/icalendar';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { completedLessons } from './completed-lessons.js';
import { hoursTable } from './hours-table.js';

/** Hours, by which a tutor is paid. */
export const hourRoutes: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(listHours),
    handler: async ({ tutor, query }) => ({
      rows: await app.hours.of(tutor.id, query.from, query.to),
    }),
  });

  app.route({
    ...served(correctHours),
    handler: async ({ tutor, params, body }, reply) =>
      reply
        .status(201)
        .send(await app.hours.correct(tutor.id, params.lesson, body.minutes, body.why)),
  });

  app.route({
    ...served(downloadHoursTable),
    handler: async ({ tutor, query }, reply) => {
      const rows = await app.hours.of(tutor.id, query.from, query.to, query.course);
      return reply
        .header('content-type', 'text/csv; charset=utf-8; header=present')
        .header('content-disposition', attachment('Hours.csv'))
        .send(hoursTable(rows, query.zone));
    },
  });

  app.route({
    ...served(downloadHoursCalendar),
    handler: async ({ tutor, query }, reply) => {
      const rows = await app.hours.of(tutor.id, query.from, query.to, query.course);
      return reply
        .header('content-type', 'text/calendar; charset=utf-8')
        .header('content-disposition', attachment('Lessons.ics'))
        .send(writeCompletedLessons(completedLessons(rows), Date.now()));
    },
  });
};
