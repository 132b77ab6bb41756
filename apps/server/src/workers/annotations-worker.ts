import { mayHaveAnnotations, takeAnnotations } from '@cuaderno/formats/pdf-annotations';
import type { Taken } from '@cuaderno/formats/pdf-annotations';
import { measureWith } from '@cuaderno/formats/pdf-out';
import { readFile } from 'node:fs/promises';
import { inflateSync } from 'node:zlib';
import { fontFiles } from './font-files.js';

export interface AnnotationsTask {
  readonly path: string;
}

/** Most bytes that a stream of objects in a PDF is unpacked to. */
const MOST = 100_000_000;

/** Takes what was written on a stored PDF out of it; `null` where nothing was: see `takeAnnotations`. */
export async function annotationsOf({ path }: AnnotationsTask): Promise<Taken | null> {
  const bytes = new Uint8Array(await readFile(path));
  const inflate = (packed: Uint8Array): Uint8Array =>
    inflateSync(packed, { maxOutputLength: MOST });
  if (!mayHaveAnnotations(bytes, inflate)) return null;
  return takeAnnotations(bytes, { measure: await measureWith(fontFiles, 'plain') });
}
