import { FileHash } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { ProblemError } from '../problems/index.js';
import type { HeldFiles } from '../boards/held-files.js';
import type { KnownFiles } from './known-files.js';
import type { FileStore } from './store.js';

declare module 'fastify' {
  interface FastifyInstance {
    files: FileStore;
    knownFiles: KnownFiles;
    heldFiles: HeldFiles;
  }
}

export const fileRoutes: FastifyPluginAsyncZod = async (app) => {
  app.get(
    '/files/:hash',
    {
      schema: {
        tags: ['files'],
        summary: 'A stored file, whole or in byte ranges, for those who may see its board',
        params: z.object({ hash: FileHash }),
      },
    },
    async (request, reply) => {
      const { hash } = request.params;
      const tutor = await app.tutorOf(request);
      const own = tutor
        ? (await app.boards.fileOfTutor(tutor.id, hash)) ||
          (await app.materials.hasFile(tutor.id, hash))
        : await app.heldFiles.mayHave(app.studentOf(request).lesson.board, hash);
      const shared = !own && tutor !== null && (await app.shares.mayUseFile(tutor.id, hash));
      if (!own && !shared) throw new ProblemError('not-found');
      const { type } = await app.knownFiles.info(hash);
      // No packed copies lie beside stored files; looking for them would lose the file's type.
      delete request.raw.headers['accept-encoding'];
      return (
        reply
          .header(
            'cache-control',
            // What is shared may be taken back.
            shared ? 'no-store' : 'private, max-age=31536000, immutable',
          )
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
  );
};
