import { FileHash, Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { BoardWriter } from '../board-writer.js';
import { BoardShape, CourseShape, ImportedAnnotations, Title } from '../courses.js';
import { Remark } from '../materials.js';
import { route } from '../route.js';

/** What something was that can't be read any more, as far as its row still says. */
export const Kind = z.enum(['line', 'item', 'erasing', 'page', 'board', 'unknown']);

const pixels = z.number().min(0);

export const readBoardPreview = route({
  method: 'GET',
  path: '/boards/:board/cover',
  who: 'teacher',
  tag: 'boards',
  summary: 'The board’s first page, as a packed snapshot (MessagePack), to draw it small',
  params: z.object({ board: Id }),
  answers: 'bytes',
});

export const renameBoard = route({
  method: 'POST',
  path: '/boards/:board/name',
  who: 'tutor',
  tag: 'boards',
  summary: 'Give a board another name',
  params: z.object({ board: Id }),
  body: z.object({ title: Title }),
  answers: { 200: BoardShape },
});

export const placeBoard = route({
  method: 'POST',
  path: '/boards/:board/place',
  who: 'tutor',
  tag: 'boards',
  summary: 'Put a board before another of its course, or at the end',
  params: z.object({ board: Id }),
  body: z.object({ before: Id.nullable() }),
  answers: { 200: z.array(BoardShape) },
});

export const copyBoard = route({
  method: 'POST',
  path: '/boards/:board/copy',
  who: 'tutor',
  tag: 'boards',
  summary: 'Copy a board, to its own course or another; with what lessons wrote, or clean',
  params: z.object({ board: Id }),
  body: z.object({ course: z.string().optional(), title: Title, lessonInk: z.boolean() }),
  answers: { 201: BoardShape },
});

export const removeBoard = route({
  method: 'POST',
  path: '/boards/:board/remove',
  who: 'tutor',
  tag: 'boards',
  summary: 'Remove a board from its course; it can be restored',
  params: z.object({ board: Id }),
  answers: { 200: BoardShape },
});

export const restoreBoard = route({
  method: 'POST',
  path: '/boards/:board/restore',
  who: 'tutor',
  tag: 'boards',
  summary: 'Restore a board that was removed',
  params: z.object({ board: Id }),
  answers: { 200: BoardShape },
});

export const useFiles = route({
  method: 'POST',
  path: '/boards/:board/files',
  who: 'teacher',
  tag: 'boards',
  summary: 'Let files of one’s own boards be seen on this one, as what is pasted needs them',
  params: z.object({ board: Id }),
  body: z.object({ files: z.array(FileHash).min(1).max(500) }),
  answers: { 204: z.null() },
});

export const movePages = route({
  method: 'POST',
  path: '/boards/:board/pages/move',
  who: 'tutor',
  tag: 'boards',
  summary: 'Take pages, with what is on them, to the end of another board',
  params: z.object({ board: Id }),
  body: z.object({ pages: z.array(Id).min(1).max(5000), to: Id }),
  answers: { 200: z.object({ pages: z.array(Id) }) },
});

export const listBoardWriters = route({
  method: 'GET',
  path: '/boards/:board/writers',
  who: 'teacher',
  tag: 'boards',
  summary: 'Who wrote on the board, in whatever lesson',
  params: z.object({ board: Id }),
  answers: { 200: z.object({ writers: z.array(BoardWriter) }) },
});

export const downloadBoardPdf = route({
  method: 'GET',
  path: '/boards/:board/pdf',
  who: 'tutor',
  tag: 'boards',
  summary: 'The board as one PDF, with what was written on it or without',
  params: z.object({ board: Id }),
  query: z.object({ ink: z.enum(['all', 'none']).default('all') }),
  answers: 'bytes',
});

export const createBoard = route({
  method: 'POST',
  path: '/courses/:course/boards',
  who: 'teacher',
  tag: 'boards',
  summary: 'Make a board with one empty page',
  params: z.object({ course: z.string() }),
  body: z.object({ title: Title }),
  answers: { 201: BoardShape },
});

export const importBoard = route({
  method: 'POST',
  path: '/courses/:course/boards/import',
  who: 'tutor',
  tag: 'boards',
  summary:
    'Make a board of a PDF or of slides, a page for each of theirs, or open a board file; the body is the file',
  consumes: ['application/octet-stream'],
  params: z.object({ course: z.string() }),
  query: z.object({ name: z.string().max(20_000) }),
  answers: {
    /** Slides: the import to ask after. */
    202: z.object({ job: z.string() }),
    201: BoardShape.extend({
      /** The PDF that it is made of. */
      file: FileHash.nullable(),
      annotations: ImportedAnnotations,
    }),
  },
});

export const readBoard = route({
  method: 'GET',
  path: '/boards/:board',
  who: 'tutor',
  tag: 'boards',
  summary: 'What a board is called and where it belongs',
  params: z.object({ board: z.string() }),
  answers: {
    200: z.object({
      board: BoardShape,
      course: CourseShape.pick({
        id: true,
        name: true,
        linkToken: true,
        joinCode: true,
        lesson: true,
        rules: true,
      }),
    }),
  },
});

export const listUnreadable = route({
  method: 'GET',
  path: '/boards/:board/unreadable',
  who: 'tutor',
  tag: 'boards',
  summary: 'What can’t be read of a board any more: where it was, of whom and of when',
  params: z.object({ board: Id }),
  answers: {
    200: z.object({
      entries: z.array(
        z.object({
          /** Its place in the board's log. */
          seq: z.number().int(),
          kind: Kind,
          page: Id.nullable(),
          by: z.string().nullable(),
          /** In ms since 1970; `null` where that can't be read either. */
          at: z.number().nullable(),
        }),
      ),
    }),
  },
});

export const uploadMaterial = route({
  method: 'POST',
  path: '/boards/:board/material',
  who: 'teacher',
  tag: 'boards',
  summary:
    'Upload a picture (PNG, JPEG, WebP, GIF, BMP, SVG), a sound or a film (MP3, WAV, OGG, M4A, WebM, MP4) to lay on a board',
  consumes: ['application/octet-stream'],
  params: z.object({ board: Id }),
  query: z.object({
    name: z.string().max(20_000).default(''),
    /** `1` for the still of a film, which is no file of its own. */
    still: z.enum(['0', '1']).default('0'),
  }),
  answers: {
    201: z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('picture'),
        file: FileHash,
        /** In pixels, upright. */
        width: pixels,
        height: pixels,
        remarks: z.array(Remark),
      }),
      z.object({
        kind: z.enum(['sound', 'film']),
        file: FileHash,
        /** In pixels; 0 for a sound. */
        width: pixels,
        height: pixels,
        /** In seconds. */
        length: z.number(),
        remarks: z.array(Remark),
      }),
    ]),
  },
});
