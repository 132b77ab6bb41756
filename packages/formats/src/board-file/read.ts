import { isKnownVersion, upgradeStored } from '@cuaderno/core';
import { strFromU8 } from 'fflate';
import { ArchiveError, entries } from '../archive/index.js';
import type { ArchiveFault, ArchiveLimits } from '../archive/index.js';
import { BoardJson, VERSION } from './shape.js';

/** Why a file is no board file that can be opened. */
export type BoardFileFault =
  | ArchiveFault
  /** A zip without a `board.json`. */
  | 'not-a-board'
  /** Of a version that isn't known here. */
  | 'version'
  /** What is written in it isn't a board. */
  | 'shape'
  /** There is more on it than a board holds. */
  | 'too-much';

export class BoardFileError extends Error {
  override readonly name = 'BoardFileError';
  constructor(
    readonly fault: BoardFileFault,
    message: string = fault,
  ) {
    super(message);
  }
}

/** What a board holds at most that comes from a file: some twenty lessons in which everyone wrote all the time. */
export const MOST = { pages: 5_000, items: 100_000, itemsOfPage: 20_000 } as const;

/** What was in a board file. */
export interface ReadBoardFile {
  readonly board: BoardJson;
  /** As it was written. */
  readonly json: Uint8Array;
  /** Files by the paths that `board` names; one that is missing is missing here. */
  readonly files: ReadonlyMap<string, Uint8Array>;
}

/** Reads a board file. Throws `BoardFileError`. */
export function readBoardFile(bytes: Uint8Array, limits: ArchiveLimits): ReadBoardFile {
  try {
    const json = entries(bytes, limits, (path) => path === 'board.json').get('board.json');
    if (!json) throw new BoardFileError('not-a-board');
    const board = parsed(json);
    const wanted = new Set(board.files.map(({ path }) => path));
    return { board, json, files: entries(bytes, limits, (path) => wanted.has(path)) };
  } catch (error) {
    throw error instanceof ArchiveError ? new BoardFileError(error.fault, error.message) : error;
  }
}

function parsed(json: Uint8Array): BoardJson {
  let data: unknown;
  try {
    data = JSON.parse(strFromU8(json));
  } catch {
    throw new BoardFileError('shape', 'board.json is no JSON');
  }
  const { format, version } = (data ?? {}) as { format?: unknown; version?: unknown };
  if (format !== 'cuaderno-board') throw new BoardFileError('not-a-board');
  if (!isKnownVersion(version)) throw new BoardFileError('version');
  checkAmount(data as object);
  const result = BoardJson.safeParse(upgraded(data as StoredBoard, version));
  if (result.success) return result.data as BoardJson;
  const [issue] = result.error.issues;
  throw new BoardFileError('shape', `${issue?.path.join('.')}: ${issue?.message}`);
}

/** What is in a file, not checked yet. */
interface StoredBoard {
  readonly pages?: unknown;
  readonly people?: unknown;
}

/** The file in the words of now. */
function upgraded(data: StoredBoard, from: number): object {
  if (from === VERSION) return data;
  const each = (list: unknown, change: (one: unknown) => unknown): unknown =>
    Array.isArray(list) ? list.map(change) : list;
  return {
    ...data,
    version: VERSION,
    people: each(data.people, (one) => upgradeStored('writer', one, from)),
    pages: each(data.pages, (one) => {
      const page = upgradeStored('page', one, from) as { items?: unknown } | null;
      if (typeof page !== 'object' || page === null) return page;
      return { ...page, items: each(page.items, (item) => upgradeStored('item', item, from)) };
    }),
  };
}

/** Counted before anything is looked at: a mark is a few bytes in the file, and a thousand times as many on a board. */
function checkAmount({ pages }: { pages?: unknown }): void {
  if (!Array.isArray(pages)) return;
  if (pages.length > MOST.pages) throw new BoardFileError('too-much', `${pages.length} pages`);
  let all = 0;
  for (const page of pages as ({ items?: unknown } | null)[]) {
    const count = Array.isArray(page?.items) ? page.items.length : 0;
    all += count;
    if (count > MOST.itemsOfPage)
      throw new BoardFileError('too-much', `${count} things on one page`);
  }
  if (all > MOST.items) throw new BoardFileError('too-much', `${all} things`);
}

/** The board in the text of a `board.json` that was read before. Throws `BoardFileError`. */
export function readBoardJson(json: Uint8Array): BoardJson {
  return parsed(json);
}
