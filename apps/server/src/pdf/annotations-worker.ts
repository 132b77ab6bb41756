import { takeAnnotations } from '@cuaderno/formats/pdf-annotations';
import type { Taken } from '@cuaderno/formats/pdf-annotations';
import { measureWith } from '@cuaderno/formats/pdf-out';
import { readFile } from 'node:fs/promises';
import { fontFiles } from '../fonts/font-files.js';

export interface AnnotationsTask {
  readonly path: string;
}

/** Takes what was written on a stored PDF out of it; `null` where nothing was: see `takeAnnotations`. */
export async function annotationsOf({ path }: AnnotationsTask): Promise<Taken | null> {
  const bytes = new Uint8Array(await readFile(path));
  return takeAnnotations(bytes, { measure: await measureWith(fontFiles, 'plain') });
}
