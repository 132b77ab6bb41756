import { BoardFileError, readBoardFile } from '@cuaderno/formats/board-file';
import type { BoardFileFault, BoardJson } from '@cuaderno/formats/board-file';
import { randomUUID } from 'node:crypto';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

export interface BoardFileTask {
  readonly path: string;
  /** Where what is in it is laid down. */
  readonly folder: string;
  /** Of all that is in it when it is unpacked, in bytes. */
  readonly maxBytes: number;
}

export type BoardFileNews =
  | {
      readonly kind: 'board';
      readonly board: BoardJson;
      /** Where its files lie now, by the paths they have in it. */
      readonly files: ReadonlyMap<string, string>;
    }
  | { readonly kind: 'fault'; readonly fault: BoardFileFault; readonly message: string };

const MAX_ENTRIES = 20_001;

/** Unpacks a board file. */
export async function openBoardFile(task: BoardFileTask): Promise<BoardFileNews> {
  try {
    const limits = { bytes: task.maxBytes, entries: MAX_ENTRIES };
    const { board, files } = readBoardFile(new Uint8Array(await readFile(task.path)), limits);
    const places = new Map<string, string>();
    for (const [path, bytes] of files) {
      const place = join(task.folder, randomUUID());
      await writeFile(place, bytes);
      places.set(path, place);
    }
    return { kind: 'board', board, files: places };
  } catch (error) {
    if (!(error instanceof BoardFileError)) throw error;
    return { kind: 'fault', fault: error.fault, message: error.message };
  }
}
