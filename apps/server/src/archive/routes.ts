import type { Description } from '@cuaderno/contract/routes/archive';
import {
  describeCourseArchive,
  describeStudentArchive,
  downloadCourseArchive,
  downloadStudentArchive,
} from '@cuaderno/contract/routes/archive';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { Readable } from 'node:stream';
import { served } from '../contract/served.js';
import type { Course } from '../courses/service.js';
import { attachment } from '../files/attachment.js';
import { ProblemError } from '../problems/index.js';
import { Archive } from './archive.js';
import type { ArchiveWish } from './archive.js';
import { zipOf } from './zip.js';

/** Everything, to be taken along: of a course, or of a student. */
export const archiveRoutes: FastifyPluginAsyncZod = async (app) => {
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

  /** Names of the PDFs in it that are protected: what is saved of them isn't. */
  const described = async (courses: readonly string[]): Promise<Description> => {
    const names = [];
    for (const { file, name } of await app.knownFiles.pdfsOf(courses))
      if (await app.pdfReader.isProtected(app.files.path(file))) names.push(name);
    return { protected: names };
  };

  /** Courses of a tutor in which a student was: names of other pupils' courses are none of theirs. */
  const coursesWith = async (tutor: string, name: string): Promise<Course[]> => {
    const known = await app.finding.students(tutor);
    if (!known.includes(name)) throw new ProblemError('not-found');
    const courses = [];
    for (const course of await app.courses.of(tutor))
      if (await app.records.wasIn(course.id, name)) courses.push(course);
    return courses;
  };

  app.route({
    ...served(describeCourseArchive),
    handler: async ({ tutor, params }) => {
      const { id } = await app.courses.one(params.course, tutor.id);
      return described([id]);
    },
  });

  app.route({
    ...served(describeStudentArchive),
    handler: async ({ tutor, query }) =>
      described((await coursesWith(tutor.id, query.name)).map(({ id }) => id)),
  });

  app.route({
    ...served(downloadCourseArchive),
    handler: async (request, reply) => {
      const { tutor, params, query } = request;
      const course = await app.courses.one(params.course, tutor.id);
      return send(request, reply, course.name, {
        courses: [course],
        student: null,
        zone: query.zone,
      });
    },
  });

  app.route({
    ...served(downloadStudentArchive),
    handler: async (request, reply) => {
      const { tutor, query } = request;
      const courses = await coursesWith(tutor.id, query.name);
      return send(request, reply, query.name, { courses, student: query.name, zone: query.zone });
    },
  });
};
