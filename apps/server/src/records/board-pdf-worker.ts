import { ANY_STUDENT, boardFor, onlyBy } from '@cuaderno/core';
import type { Board, Page, Author } from '@cuaderno/core';
import { appendixPages } from '@cuaderno/core/appendix';
import type { AppendixPart } from '@cuaderno/core/appendix';
import { boardPdf, measureWith } from '@cuaderno/formats/pdf-out';
import { readFile } from 'node:fs/promises';
import type { MessagePort } from 'node:worker_threads';
import { promisify } from 'node:util';
import { constants, deflate, deflateSync } from 'node:zlib';
import type { ZlibOptions } from 'node:zlib';
import { move } from 'piscina';
import { LogStore } from '../boards/log-store.js';
import { lentDatabase } from '../database/index.js';
import type { Database } from '../database/index.js';
import { filePath } from '../files/store.js';
import { Records } from './service.js';
import { fontFiles } from '../fonts/font-files.js';

/**
 * Ink is numbers that hardly ever repeat: looking for repetitions takes twice the time and saves a
 * twelfth of the size.
 */
const NUMBERS: ZlibOptions = { level: 1, strategy: constants.Z_HUFFMAN_ONLY };

const deflateInPool = promisify<Uint8Array, ZlibOptions, Uint8Array>(deflate);

/** Packed, it is less than half as large: with room for just that, nothing is put together afterwards or thrown away. */
const fitting = (bytes: Uint8Array): ZlibOptions => ({
  ...NUMBERS,
  chunkSize: Math.max(1 << 12, bytes.length >> 1),
});

export interface BoardPdfTask {
  /** Leads to the database. */
  readonly port: MessagePort;
  /** A board as it is now, or the record of a lesson. */
  readonly of: { readonly board: string } | { readonly record: string };
  /** How what is written goes along. */
  readonly ink: 'drawn' | 'annotations' | 'none';
  /** Whether it is only what students see: not what is hidden, nor the margins. */
  readonly forStudents?: boolean;
  /** Who wrote it. */
  readonly people?: ReadonlyMap<string, Author>;
  /** Those whose ink goes along; everyone's where `null`. */
  readonly only?: readonly string[] | null;
  /** Whether it is shown whose each line is. */
  readonly signed?: boolean;
  /** What follows the board's own pages. */
  readonly appendix?: readonly AppendixPart[];
  /** Of its words (BCP 47). */
  readonly language?: string;
  readonly title: string;
  readonly author: string;
  /** Milliseconds since 1970. */
  readonly date: number;
  /** Folder of stored files. */
  readonly files: string;
}

/** Makes the PDF of a record or a board, away from the thread that serves lessons: from its log on. */
export async function makeBoardPdf(task: BoardPdfTask): Promise<Uint8Array> {
  const db = lentDatabase(task.port);
  try {
    const whole = await boardOf(task, db);
    const boards = await titlesOf(task, db);
    const { people, only, signed = false, language } = task;
    const seen = task.forStudents ? boardFor(whole, ANY_STUDENT) : whole;
    const board = only ? onlyBy(seen, ...only) : seen;
    const pdf = await boardPdf(board, {
      title: task.title,
      boards,
      ink: task.ink,
      signed,
      after: await pagesOf(task.appendix ?? []),
      ...(people ? { people } : {}),
      ...(language ? { language } : {}),
      author: task.author,
      date: new Date(task.date),
      file: async (hash) => new Uint8Array(await readFile(filePath(task.files, hash))),
      fonts: fontFiles,
      deflate: (bytes) => deflateSync(bytes, fitting(bytes)),
      deflateBeside: (bytes) => deflateInPool(bytes, fitting(bytes)),
    });
    return move(pdf as never) as unknown as Uint8Array;
  } finally {
    await db.close();
  }
}

async function boardOf({ of }: BoardPdfTask, db: Database): Promise<Board> {
  const logs = new LogStore(db);
  if ('record' in of) return new Records(db, logs).board({ lesson: of.record });
  const loaded = await logs.load(of.board);
  if (!loaded) throw new Error('This board is not there.');
  return loaded.board;
}

/** What the boards of a record were called. */
async function titlesOf({ of }: BoardPdfTask, db: Database): Promise<string[]> {
  if ('board' in of) return [];
  const boards = await new Records(db, new LogStore(db)).boards({ lesson: of.record });
  return boards.map(({ title }) => title);
}

/** Fonts are opened only where there is something to be set in them. */
async function pagesOf(parts: readonly AppendixPart[]): Promise<Page[]> {
  if (parts.length === 0) return [];
  const [title, plain] = await Promise.all([
    measureWith(fontFiles, 'title'),
    measureWith(fontFiles, 'plain'),
  ]);
  return appendixPages(parts, { title, plain });
}
