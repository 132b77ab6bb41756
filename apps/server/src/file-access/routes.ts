import { readFile, readPagePicture } from '@cuaderno/contract/routes/files';
import type { FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { served } from '../contract/served.js';
import type { Student } from '../lessons/plugin.js';
import { ProblemError } from '../problems/index.js';

export const fileRoutes: FastifyPluginAsyncZod = async (app) => {
  /** Throws `not-found` for anyone who may not see the file. Resolves with whether it is shared by somebody else. */
  const mayHave = async (request: FastifyRequest, hash: string): Promise<boolean> => {
    const tutor = await app.tutorOf(request);
    const own =
      tutor !== null &&
      ((await app.boards.fileOfTutor(tutor.id, hash)) ||
        (await app.materials.hasFile(tutor.id, hash)));
    const shared = !own && tutor !== null && (await app.shares.mayUseFile(tutor.id, hash));
    if (own || shared) return shared;
    // A tutor who is in another's lesson has what is there.
    if (tutor === null || isInLesson(request))
      if (await mayHaveInLesson(app.studentOf(request), hash)) return false;
    throw new ProblemError('not-found');
  };
  const isInLesson = (request: FastifyRequest): boolean => {
    try {
      app.studentOf(request);
      return true;
    } catch {
      return false;
    }
  };
  /** Who helps sees whole boards of the course; others what the class may see. */
  const mayHaveInLesson = async ({ lesson, person }: Student, hash: string): Promise<boolean> =>
    (await app.hiddenFiles.mayHaveIn(lesson, hash)) ||
    (person.role === 'helper' && (await app.boards.fileOfCourse(lesson.course, hash)));
  /** What is shared may be taken back. */
  const kept = (shared: boolean): string =>
    shared ? 'no-store' : 'private, max-age=31536000, immutable';

  app.route({
    ...served(readFile),
    handler: async (request, reply) => {
      const { hash } = request.params;
      const shared = await mayHave(request, hash);
      const { type } = await app.knownFiles.info(hash);
      // No packed copies lie beside stored files; looking for them would lose the file's type.
      delete request.raw.headers['accept-encoding'];
      return (
        reply
          .header('cache-control', kept(shared))
          .header('content-type', type)
          .header('x-content-type-options', 'nosniff')
          .header('content-disposition', 'inline')
          // Opened by itself, it can do nothing: no script, no frame, nothing from anywhere.
          .header('content-security-policy', "default-src 'none'; sandbox")
          .sendFile(`${hash.slice(0, 2)}/${hash}`, app.files.folder, {
            // Named by its content, so it never changes; private, since not everyone may see it.
            cacheControl: false,
            contentType: false,
            lastModified: false,
          })
      );
    },
  });

  app.route({
    ...served(readPagePicture),
    handler: async (request, reply) => {
      const { hash, page } = request.params;
      const shared = await mayHave(request, hash);
      const { type } = await app.knownFiles.info(hash);
      if (type !== 'application/pdf') throw new ProblemError('not-found');
      const picture = await app.pagePictures.paper(hash, page, request.query.side);
      return reply.type('image/webp').header('cache-control', kept(shared)).send(picture);
    },
  });
};
