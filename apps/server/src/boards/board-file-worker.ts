import { BoardFileError, readBoardFile, readBoardJson } from '@cuaderno/formats/board-file';
import type { BoardWriter } from '@cuaderno/contract/board-writer';
import type { BoardFileFault } from '@cuaderno/formats/board-file';
import { randomUUID } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { MessagePort } from 'node:worker_threads';
import { logOf, peopleOf, withFiles } from './board-file-log.js';
import { LogStore } from './log-store.js';
import { lentDatabase } from '../database/index.js';

export interface BoardFileTask {
  readonly path: string;
  /** Where what is in it is laid down. */
  readonly folder: string;
  /** Of all that is in it when it is unpacked, in bytes. */
  readonly maxBytes: number;
}

export interface BoardFileBad {
  readonly kind: 'fault';
  readonly fault: BoardFileFault;
  readonly message: string;
}

export type BoardFileNews =
  | {
      readonly kind: 'board';
      readonly title: string;
      /** How many it has. */
      readonly pages: number;
      /** Where the text of its board lies now. */
      readonly json: string;
      /** What its files are called in it, and where each lies now; `null` for one that isn't there. */
      readonly files: readonly { readonly hash: string; readonly place: string | null }[];
    }
  | BoardFileBad;

/** A board that is to be laid into the database, when its files have been kept. */
export interface BoardLogTask {
  readonly json: string;
  /** What its files are called here, by what they are called in it. */
  readonly files: ReadonlyMap<string, string>;
  readonly tutor: string;
  /** The number of the board that it becomes. */
  readonly num: number;
  /** To the database. */
  readonly port: MessagePort;
}

export type BoardLogNews =
  { readonly kind: 'laid'; readonly people: readonly BoardWriter[] } | BoardFileBad;

const MAX_ENTRIES = 20_001;
/** Entries that go to the database at once. */
const AT_ONCE = 2_000;

/** Unpacks a board file, and sees whether it is one. */
export function openBoardFile(task: BoardFileTask): Promise<BoardFileNews> {
  return orFault(async () => {
    const limits = { bytes: task.maxBytes, entries: MAX_ENTRIES };
    const { board, json, files } = readBoardFile(new Uint8Array(await readFile(task.path)), limits);
    const lay = async (bytes: Uint8Array): Promise<string> => {
      const place = join(task.folder, randomUUID());
      await writeFile(place, bytes);
      return place;
    };
    const places = new Map<string, string>();
    for (const [path, bytes] of files) places.set(path, await lay(bytes));
    return {
      kind: 'board' as const,
      title: board.title,
      pages: board.pages.length,
      json: await lay(json),
      files: board.files.map(({ hash, path }) => ({ hash, place: places.get(path) ?? null })),
    };
  });
}

/** Makes the log of a board that was unpacked, and writes it down. Nothing is written where it can't be made. */
export async function layBoardFile(task: BoardLogTask): Promise<BoardLogNews> {
  const db = lentDatabase(task.port);
  try {
    return await orFault(async () => {
      const read = readBoardJson(new Uint8Array(await readFile(task.json)));
      const board = withFiles(read, task.files);
      const entries = logOf(board, task.tutor);
      const logs = new LogStore(db);
      for (let i = 0; i < entries.length; i += AT_ONCE)
        await logs.append(task.num, entries.slice(i, i + AT_ONCE));
      return { kind: 'laid' as const, people: peopleOf(board) };
    });
  } finally {
    await db.close();
  }
}

async function orFault<T>(work: () => Promise<T>): Promise<T | BoardFileBad> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof BoardFileError)) throw error;
    return { kind: 'fault', fault: error.fault, message: error.message };
  }
}
