import { Id } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { DateTime } from 'luxon';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { attendanceTable } from './attendance-table.js';
import { chatText } from './chat-text.js';
import { Zone } from './zone.js';

const tags = ['records'];
/** What else can be taken out of records, as text. */
export const exportRoutesOfRecords: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  app.get(
    '/records/:lesson/chat.txt',
    {
      schema: {
        tags,
        summary: 'The chat of a lesson as plain text',
        params: z.object({ lesson: Id }),
        querystring: Zone,
      },
    },
    async ({ tutor, params, query }, reply) => {
      const record = await app.records.one(params.lesson, tutor.id);
      const { chat } = await app.records.timeline(record.lesson);
      const people = await app.records.attendance(record.lesson, record.closedAt);
      const day = DateTime.fromMillis(record.openedAt, { zone: query.zone }).toISODate();
      return reply
        .header('content-type', 'text/plain; charset=utf-8')
        .header(
          'content-disposition',
          attachment(`${record.courseName} – ${record.title} – ${day} – chat.txt`),
        )
        .send(chatText(record, chat, people, query.zone));
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
