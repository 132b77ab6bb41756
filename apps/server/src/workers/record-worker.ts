import { boardFromSnapshot, unpack } from '@cuaderno/core';
import type { BoardSnapshot } from '@cuaderno/core';
import { recordPdf } from '@cuaderno/formats/pdf-out';
import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import { move } from 'piscina';

const compress = promisify(deflate) as (
  bytes: Uint8Array,
  options: { level: number },
) => Promise<Uint8Array>;

export interface RecordTask {
  /** A `BoardSnapshot`, packed. */
  readonly board: Uint8Array;
  readonly title: string;
  readonly author: string;
  /** Milliseconds since 1970. */
  readonly sealedAt: number;
  /** Where each imported file lies, by its hash. */
  readonly files: Record<string, string>;
}

/** Makes the PDF of a record, away from the thread that serves lessons. */
export async function makeRecordPdf(task: RecordTask): Promise<Uint8Array> {
  const pdf = await recordPdf(boardFromSnapshot(unpack(task.board) as BoardSnapshot), {
    title: task.title,
    author: task.author,
    date: new Date(task.sealedAt),
    file: async (hash) => new Uint8Array(await readFile(task.files[hash]!)),
    deflate: (bytes) => compress(bytes, { level: 1 }),
  });
  return move(pdf as never) as unknown as Uint8Array;
}
