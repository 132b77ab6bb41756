import { Id } from '@cuaderno/core';
import { USUAL, WallTime } from '@cuaderno/core/timetable';
import { writeICalendar } from '@cuaderno/formats/icalendar';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { ClashShape, Planned, PlanWish, ZoneName } from '@cuaderno/contract/timetable';

const tags = ['timetable'];
const Params = z.object({ plan: Id });
const Moment = z.coerce.number().int().min(0).max(8.64e15);
/** Largest calendar that is read, in bytes. */
const MAX_CALENDAR = 3_000_000;

export const timetableRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);
  app.addContentTypeParser(
    'text/calendar',
    { parseAs: 'string', bodyLimit: MAX_CALENDAR },
    (_request, body, done) => done(null, body),
  );

  app.get(
    '/timetable',
    {
      schema: {
        tags,
        summary: 'Lessons between two moments, and which get in each other’s way',
        querystring: z.object({ from: Moment, to: Moment }),
        response: { 200: z.object({ lessons: z.array(Planned), clashes: z.array(ClashShape) }) },
      },
    },
    ({ tutor, query }) => app.timetable.between(tutor.id, query.from, query.to),
  );

  app.post(
    '/courses/:course/plans',
    {
      schema: {
        tags,
        summary: 'Plan lessons of a course: one, or one every week',
        params: z.object({ course: Id }),
        body: PlanWish,
        response: { 201: z.object({ plan: Id }) },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const { id } = await app.timetable.make(course.id, body);
      return reply.status(201).send({ plan: id });
    },
  );

  app.post(
    '/plans/:plan/change',
    {
      schema: {
        tags,
        summary: 'Move one date of a plan, or cancel it',
        params: Params,
        body: z.object({
          was: WallTime,
          /** When it is instead; `null` where it is cancelled. */
          now: WallTime.nullable(),
          why: z.string().trim().max(300).default(''),
        }),
        response: { 204: z.null() },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const plan = await app.timetable.one(params.plan, tutor.id);
      await app.timetable.change(plan, body.was, body.now, body.why);
      return reply.status(204).send(null);
    },
  );

  for (const [what, summary] of [
    ['restore', 'Have a date as it was planned'],
    ['end', 'End a series before one of its dates, or take a single lesson out'],
  ] as const)
    app.post(
      `/plans/:plan/${what}`,
      {
        schema: {
          tags,
          summary,
          params: Params,
          body: z.object({ was: WallTime }),
          response: { 204: z.null() },
        },
      },
      async ({ tutor, params, body }, reply) => {
        const plan = await app.timetable.one(params.plan, tutor.id);
        await app.timetable[what](plan, body.was);
        return reply.status(204).send(null);
      },
    );

  app.get(
    '/timetable.ics',
    { schema: { tags, summary: 'The timetable as iCalendar (RFC 5545)' } },
    async ({ tutor }, reply) => {
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
  );

  app.post(
    '/courses/:course/plans/bring',
    {
      bodyLimit: MAX_CALENDAR,
      schema: {
        tags,
        summary: 'Plan what a calendar has (iCalendar, the body) as lessons of a course',
        consumes: ['text/calendar'],
        params: z.object({ course: Id }),
        querystring: z.object({ zone: ZoneName }),
        response: {
          200: z.object({
            made: z.number(),
            skipped: z.array(z.object({ summary: z.string(), why: z.string() })),
          }),
        },
      },
    },
    async ({ tutor, params, query, body }) => {
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
  );
};
