import { downloadAttendance, downloadSaid } from '@cuaderno/contract/routes/records';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { KEPT_FILES } from '../live/features/kept.js';
import { ProblemError } from '../problems/index.js';
import { attendanceTable } from './attendance-table.js';

/** What else can be taken out of records, as text. */
export const exportRoutesOfRecords: FastifyPluginAsyncZod = async (app) => {
  app.route({
    ...served(downloadSaid),
    handler: async ({ tutor, params, query: { zone } }, reply) => {
      const record = await app.records.one(params.lesson, tutor.id);
      const file = KEPT_FILES.find(({ name, ending }) => `${name}${ending}` === params.file);
      if (!file) throw new ProblemError('not-found');
      const timeline = await app.records.timeline(record.lesson);
      const people = await app.records.attendance(record.lesson, record.closedAt);
      const day = DateTime.fromMillis(record.openedAt, { zone }).toISODate();
      const name = `${record.courseName} – ${record.title} – ${day} – ${params.file}`;
      return reply
        .header('content-type', file.type)
        .header('content-disposition', attachment(name))
        .send(file.write(timeline, { record, people, zone }));
    },
  });

  app.route({
    ...served(downloadAttendance),
    handler: async ({ tutor, params, query }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const lessons = await app.records.attended(course.id);
      return reply
        .header('content-type', 'text/csv; charset=utf-8; header=present')
        .header('content-disposition', attachment(`${course.name} – attendance.csv`))
        .send(attendanceTable(course.name, lessons, query.zone));
    },
  });
};
