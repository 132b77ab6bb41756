import {
  changeDate,
  downloadTimetable,
  endPlan,
  importCalendar,
  moveSeries,
  planLesson,
  readTimetable,
  restoreDate,
} from '@cuaderno/contract/routes/timetable';
import { USUAL } from '@cuaderno/core/timetable';
import { writeICalendar } from '@cuaderno/formats/icalendar';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';

/** Largest calendar that is read, in bytes. */
const MAX_CALENDAR = 3_000_000;

export const timetableRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addContentTypeParser(
    'text/calendar',
    { parseAs: 'string', bodyLimit: MAX_CALENDAR },
    (_request, body, done) => done(null, body),
  );

  app.route({
    ...served(readTimetable),
    handler: async ({ tutor, query }) => ({
      ...(await app.timetable.between(tutor.id, query.from, query.to)),
      zone: await app.accounts.zone(tutor.id),
    }),
  });

  app.route({
    ...served(planLesson),
    handler: async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const { id } = await app.timetable.make(course.id, body);
      return reply.status(201).send({ plan: id });
    },
  });

  app.route({
    ...served(changeDate),
    handler: async ({ tutor, params, body }, reply) => {
      const plan = await app.timetable.one(params.plan, tutor.id);
      await app.timetable.change(plan, body.was, body.now, body.why);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(moveSeries),
    handler: async ({ tutor, params, body }) => {
      const plan = await app.timetable.one(params.plan, tutor.id);
      return { plan: await app.timetable.moveSeries(plan, body.was, body.now) };
    },
  });

  app.route({
    ...served(restoreDate),
    handler: async ({ tutor, params, body }, reply) => {
      const plan = await app.timetable.one(params.plan, tutor.id);
      await app.timetable.restore(plan, body.was);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(endPlan),
    handler: async ({ tutor, params, body }, reply) => {
      const plan = await app.timetable.one(params.plan, tutor.id);
      await app.timetable.end(plan, body.was);
      return reply.status(204).send(null);
    },
  });

  app.route({
    ...served(downloadTimetable),
    handler: async ({ tutor }, reply) => {
      const [list, courses] = await Promise.all([
        app.timetable.plans({ tutor: tutor.id }),
        app.courses.of(tutor.id),
      ]);
      const names = new Map(courses.map(({ id, name }) => [id, name] as const));
      const entries = list.map((plan) => {
        const name = names.get(plan.course) ?? '';
        return { plan, summary: plan.topic ? `${name}: ${plan.topic}` : name };
      });
      return reply
        .header('content-type', 'text/calendar; charset=utf-8')
        .header('content-disposition', attachment('Timetable.ics'))
        .send(writeICalendar(entries, Date.now()));
    },
  });

  app.route({
    ...served(importCalendar),
    bodyLimit: MAX_CALENDAR,
    handler: async ({ tutor, params, query, body }) => {
      const course = await app.courses.one(params.course, tutor.id);
      const news = await app.calendarReader.read({
        ...{ text: String(body), own: query.zone },
        candidates: Intl.supportedValuesOf('timeZone'),
      });
      if (news.kind === 'fault')
        throw new ProblemError(
          news.fault === 'too-large' ? 'calendar-too-large' : 'not-a-calendar',
        );
      const { plans, skipped } = news;
      await app.timetable.makeRoom(course.id, plans);
      for (const { summary, ...plan } of plans)
        await app.timetable.insert(course.id, {
          ...plan,
          topic: summary.slice(0, 120),
          buffer: USUAL.buffer,
        });
      return { made: plans.length, skipped };
    },
  });
};
