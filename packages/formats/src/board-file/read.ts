import { strFromU8 } from 'fflate';
import { ArchiveError, entries } from '../archive/index.js';
import type { ArchiveFault, ArchiveLimits } from '../archive/index.js';
import { BoardJson } from './shape.js';

/** Why a file is no board file that can be opened. */
export type BoardFileFault =
  | ArchiveFault
  /** A zip without a `board.json`. */
  | 'not-a-board'
  /** Of a version that isn't known here. */
  | 'version'
  /** What is written in it isn't a board. */
  | 'shape';

export class BoardFileError extends Error {
  override readonly name = 'BoardFileError';
  constructor(
    readonly fault: BoardFileFault,
    message: string = fault,
  ) {
    super(message);
  }
}

/** What was in a board file. */
export interface ReadBoardFile {
  readonly board: BoardJson;
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
    return { board, files: entries(bytes, limits, (path) => wanted.has(path)) };
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
  if (version !== 1) throw new BoardFileError('version');
  const result = BoardJson.safeParse(data);
  if (result.success) return result.data as BoardJson;
  const [issue] = result.error.issues;
  throw new BoardFileError('shape', `${issue?.path.join('.')}: ${issue?.message}`);
}
