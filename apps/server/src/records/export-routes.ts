import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { KEPT_FILES } from '../live/features/kept.js';
import { attendanceTable } from './attendance-table.js';
import { Zone } from '@cuaderno/contract/time-zone';

const tags = ['records'];
/** What else can be taken out of records, as text. */
export const exportRoutesOfRecords: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  for (const file of KEPT_FILES)
    app.get(
      `/records/:lesson/${file.name}${file.ending}`,
      {
        schema: {
          tags,
          summary: file.summary,
          params: z.object({ lesson: Id }),
          querystring: Zone,
        },
      },
      async ({ tutor, params, query: { zone } }, reply) => {
        const record = await app.records.one(params.lesson, tutor.id);
        const timeline = await app.records.timeline(record.lesson);
        const people = await app.records.attendance(record.lesson, record.closedAt);
        const day = DateTime.fromMillis(record.openedAt, { zone }).toISODate();
        const name = `${record.courseName} – ${record.title} – ${day} – ${file.name}${file.ending}`;
        return reply
          .header('content-type', file.type)
          .header('content-disposition', attachment(name))
          .send(file.write(timeline, { record, people, zone }));
      },
    );

  app.get(
    '/courses/:course/attendance.csv',
    {
      schema: {
        tags,
        summary: 'Who came to the lessons of a course, as a table (RFC 4180)',
        params: z.object({ course: Id }),
        querystring: Zone,
      },
    },
    async ({ tutor, params, query }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const lessons = await app.records.attended(course.id);
      return reply
        .header('content-type', 'text/csv; charset=utf-8; header=present')
        .header('content-disposition', attachment(`${course.name} – attendance.csv`))
        .send(attendanceTable(course.name, lessons, query.zone));
    },
  );
};
