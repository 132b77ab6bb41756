import { FileHash } from '@cuaderno/core';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { z } from 'zod';
import { BoardShape, CourseShape, Title } from '../courses/shapes.js';
import { tooLarge } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { BoardFiles } from './board-files.js';
import type { Imports } from './import.js';
import type { Boards } from './service.js';

declare module 'fastify' {
  interface FastifyInstance {
    boards: Boards;
    imports: Imports;
    boardFiles: BoardFiles;
  }
}

const tags = ['boards'];

/** Begins a zip, or its end where it is empty (APPNOTE.TXT, 4.3), and OLE2 files (MS-CFB, 2.2). */
const PACKED = ['PK\x03\x04', 'PK\x05\x06', '\xd0\xcf\x11\xe0'];

/** Whether a file is one in which others are packed, as decks and saved boards are. */
async function isPacked(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer } = await handle.read(Buffer.alloc(4), 0, 4, 0);
    return PACKED.includes(buffer.toString('latin1'));
  } finally {
    await handle.close();
  }
}

/** Longest file name that is taken, in characters; longer ones are cut. */
const MAX_TITLE = 120;

/** A title from a file's name: without its ending, and no longer than a title may be. */
export function titleFromFileName(name: string): string {
  const base = name.replace(/^.*[\\/]/, '').replace(/\.(pdf|pptx?|odp)$/i, '');
  const title = Title.safeParse([...base].slice(0, MAX_TITLE).join(''));
  return title.data ?? 'Board';
}

export const boardRoutes: FastifyPluginAsyncZod<{
  maxUploadBytes: number;
  maxPages: number;
}> = async (app, { maxUploadBytes, maxPages }) => {
  app.addHook('onRequest', app.tutorOnly);

  // The file is taken as it comes, from the line to the disk: never whole in memory.
  app.addContentTypeParser('application/octet-stream', (_request, payload, done) =>
    done(null, payload),
  );

  const forget = async (hash: string): Promise<void> => {
    if (!(await app.boards.knowsFile(hash))) await app.files.remove(hash);
  };

  app.post(
    '/courses/:course/boards',
    {
      schema: {
        tags,
        summary: 'Make a board with one empty page',
        params: z.object({ course: z.string() }),
        body: z.object({ title: Title }),
        response: { 201: BoardShape },
      },
    },
    async ({ tutor, params, body }, reply) => {
      const course = await app.courses.one(params.course, tutor.id);
      const board = await app.imports.empty(course.id, body.title, tutor.id);
      return reply.status(201).send(board);
    },
  );

  app.post(
    '/courses/:course/boards/bring',
    {
      bodyLimit: maxUploadBytes + 1024,
      schema: {
        tags,
        summary:
          'Make a board of a PDF or of slides, a page for each of theirs, or open a board file; the body is the file',
        consumes: ['application/octet-stream'],
        params: z.object({ course: z.string() }),
        querystring: z.object({ name: z.string().max(20_000) }),
        response: {
          /** Slides: the import to ask after. */
          202: z.object({ job: z.string() }),
          201: BoardShape.extend({
            /** The PDF that it is made of. */
            file: FileHash.nullable(),
          }),
        },
      },
    },
    async (request, reply) => {
      const { tutor, params, query } = request;
      const length = Number(request.headers['content-length'] ?? 0);
      if (length > maxUploadBytes)
        throw new ProblemError('file-too-large', { detail: tooLarge(maxUploadBytes) });
      const course = await app.courses.one(params.course, tutor.id);
      const file = await app.files.put(request.body as Readable, maxUploadBytes);
      const title = titleFromFileName(query.name);
      const wishes = {
        course: course.id,
        tutor: tutor.id,
        title,
        fileName: `${title}.pdf`,
        maxPages,
      };
      const packed = await isPacked(file.path);
      const deck = packed
        ? await app.slides.kindOf(file, maxUploadBytes).catch(async (error: unknown) => {
            await forget(file.hash);
            throw error;
          })
        : null;
      if (deck) {
        // The same deck may be waiting twice.
        const release = app.files.hold(file.hash);
        const job = app.importQueue.add(tutor.id, (news, signal) =>
          app.slides.run(file, deck, { ...wishes, maxUploadBytes }, news, signal).finally(() => {
            release();
            return forget(file.hash);
          }),
        );
        return reply.status(202).send({ job });
      }
      if (packed) {
        const wish = { course: course.id, tutor: tutor.id, maxUploadBytes };
        const opened = await app.boardFiles
          .open(file, wish)
          // What is in it is kept, not the zip.
          .finally(() => forget(file.hash));
        return reply.status(201).send({ ...opened, file: null });
      }
      const board = await app.imports.begin(file, wishes);
      return reply.status(201).send({ ...board, file: file.hash });
    },
  );

  app.get(
    '/boards/:board',
    {
      schema: {
        tags,
        summary: 'What a board is called and where it belongs',
        params: z.object({ board: z.string() }),
        response: {
          200: z.object({
            board: BoardShape,
            course: CourseShape.pick({
              id: true,
              name: true,
              linkToken: true,
              joinCode: true,
              lesson: true,
            }),
          }),
        },
      },
    },
    async ({ tutor, params }) => {
      const board = await app.boards.one(params.board, tutor.id);
      const { id, name, linkToken, joinCode } = await app.courses.one(board.course, tutor.id);
      const lesson = app.lessons.ofCourse(id);
      return {
        board,
        course: {
          id,
          name,
          linkToken,
          joinCode,
          lesson: lesson ? { id: lesson.id, board: lesson.board } : null,
        },
      };
    },
  );
};
