import { Id } from '@cuaderno/core';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { Readable } from 'node:stream';
import * as z from 'zod';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { Zone } from '../records/zone.js';
import { Archive } from './archive.js';
import type { ArchiveWish } from './archive.js';
import { zipOf } from './zip.js';

const tags = ['archive'];

/** Everything, to be taken along: of a course, or of a student. */
export const archiveRoutes: FastifyPluginAsyncZod = async (app) => {
  app.addHook('onRequest', app.tutorOnly);

  const send = (
    request: FastifyRequest,
    reply: FastifyReply,
    name: string,
    wish: Omit<ArchiveWish, 'tutor' | 'signal'>,
  ): FastifyReply => {
    const gone = new AbortController();
    request.raw.once('close', () => request.raw.destroyed && gone.abort());
    const archive = new Archive(app, { ...wish, tutor: request.tutor, signal: gone.signal });
    const zip = zipOf(archive.entries(), (path, error) => {
      request.log.error({ err: error, path }, 'a piece of an archive could not be made');
      archive.failed(path);
    });
    return reply
      .header('content-type', 'application/zip')
      .header('content-disposition', attachment(`${name}.zip`))
      .send(Readable.from(zip, { objectMode: false }));
  };

  app.get(
    '/courses/:course/archive.zip',
    {
      schema: {
        tags,
        summary:
          'Everything of a course as one archive: records, boards, materials, attendance, hours',
        params: z.object({ course: Id }),
        querystring: Zone,
      },
    },
    async (request, reply) => {
      const { tutor, params, query } = request;
      const course = await app.courses.one(params.course, tutor.id);
      return send(request, reply, course.name, {
        courses: [course],
        student: null,
        zone: query.zone,
      });
    },
  );

  app.get(
    '/students/archive.zip',
    {
      schema: {
        tags,
        summary: 'What a student wrote and said in this tutor’s lessons, as one archive',
        querystring: Zone.extend({ name: z.string().min(1).max(200) }),
      },
    },
    async (request, reply) => {
      const { tutor, query } = request;
      const known = await app.finding.students(tutor.id);
      if (!known.includes(query.name)) throw new ProblemError('not-found');
      // Names of other pupils' courses are none of theirs.
      const courses = [];
      for (const course of await app.courses.of(tutor.id))
        if (await app.records.wasIn(course.id, query.name)) courses.push(course);
      return send(request, reply, query.name, { courses, student: query.name, zone: query.zone });
    },
  );
};
