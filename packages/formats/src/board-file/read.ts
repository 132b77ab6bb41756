import { strFromU8, unzipSync } from 'fflate';
import type { UnzipFileInfo } from 'fflate';
import { BoardJson } from './shape.js';

/** Why a file is no board file that can be opened. */
export type BoardFileFault =
  /** It is no zip, or is cut off. */
  | 'broken'
  /** A zip without a `board.json`. */
  | 'not-a-board'
  /** Of a version that isn't known here. */
  | 'version'
  /** More than is taken, or packed so tightly that it is a trap. */
  | 'too-large'
  /** A path that leads out of it. */
  | 'unsafe'
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

export interface BoardFileLimits {
  /** Of all entries together when unpacked, in bytes. */
  readonly bytes: number;
  readonly entries: number;
}

/** How many times as large a packed entry may get: prose and numbers get 5 to 50 times. */
const MAX_RATIO = 200;
/** Entries smaller than this may be packed as tightly as they like, in bytes. */
const SMALL = 1_000_000;

/** What was in a board file. */
export interface ReadBoardFile {
  readonly board: BoardJson;
  /** Files by the paths that `board` names; one that is missing is missing here. */
  readonly files: ReadonlyMap<string, Uint8Array>;
}

/** Reads a board file. Throws `BoardFileError`. */
export function readBoardFile(bytes: Uint8Array, limits: BoardFileLimits): ReadBoardFile {
  const json = entries(bytes, limits, (path) => path === 'board.json').get('board.json');
  if (!json) throw new BoardFileError('not-a-board');
  const board = parsed(json);
  const wanted = new Set(board.files.map(({ path }) => path));
  return { board, files: entries(bytes, limits, (path) => wanted.has(path)) };
}

/** Entries of a zip that are asked for, within the limits. */
export function entries(
  bytes: Uint8Array,
  limits: BoardFileLimits,
  wanted: (path: string) => boolean,
): Map<string, Uint8Array> {
  let count = 0;
  let total = 0;
  const filter = ({ name, size, originalSize }: UnzipFileInfo): boolean => {
    if (/^[/\\]|^[a-z]:|(^|[/\\])\.\.([/\\]|$)|\0/i.test(name))
      throw new BoardFileError('unsafe', name);
    if (++count > limits.entries) throw new BoardFileError('too-large');
    if (!wanted(name)) return false;
    total += originalSize;
    if (total > limits.bytes) throw new BoardFileError('too-large');
    if (originalSize > SMALL && originalSize > size * MAX_RATIO)
      throw new BoardFileError('too-large');
    return true;
  };
  try {
    return new Map(Object.entries(unzipSync(bytes, { filter })));
  } catch (error) {
    throw error instanceof BoardFileError ? error : new BoardFileError('broken');
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
