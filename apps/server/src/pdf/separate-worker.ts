import { separatePdf } from '@cuaderno/formats/pdf-out';
import type { Separated } from '@cuaderno/formats/pdf-out';
import { readFile } from 'node:fs/promises';

export interface SeparateTask {
  readonly path: string;
  /** Pages to be taken out, from 1. */
  readonly numbers: readonly number[];
}

/** Takes pages out of a stored PDF; see `separatePdf`. */
export async function separate({ path, numbers }: SeparateTask): Promise<Separated> {
  return separatePdf(new Uint8Array(await readFile(path)), numbers);
}
