import '../workers/own-response.js';
import type { PdfPlacement } from '@cuaderno/core';
import { mayHaveAnnotations } from '@cuaderno/formats/pdf-annotations/may-have-annotations';
import { inspectPdf, PdfError } from '@cuaderno/formats/pdf-in';
import type { PdfFault } from '@cuaderno/formats/pdf-in';
import { readFile } from 'node:fs/promises';
import { setTimeout } from 'node:timers/promises';
import type { MessagePort } from 'node:worker_threads';
import { inflateSync } from 'node:zlib';

/** Pages looked at before the first word: enough to begin on. */
const FIRST = 8;
/** Pages in each word after that. */
const RUN = 200;
/**
 * Rest after the first word, in ms: the browser that waits for page 1 may have to share this
 * machine with us, and nobody waits for the others.
 */
const BREATH = 1000;
/** A file of so few pages is looked at before that would be noticed. */
const SHORT = 100;

export interface InspectTask {
  readonly path: string;
  /** First page to look at, from 1; beyond the last where only their number is asked for. */
  readonly from: number;
  /** Pages that it may have: of one that has more, only their number is told. */
  readonly most: number;
  readonly port: MessagePort;
}

export type InspectNews =
  | { readonly kind: 'count'; readonly count: number }
  /** Pages in order; `null` for one that can't be read. */
  | { readonly kind: 'pages'; readonly pages: (PdfPlacement | null)[] }
  /** What the file calls its pages, by number. */
  | { readonly kind: 'names'; readonly names: ReadonlyMap<number, string> }
  | { readonly kind: 'fault'; readonly fault: PdfFault | 'too-slow' }
  | { readonly kind: 'done' };

/** Answers once everything is loaded. */
export function ready(): boolean {
  return true;
}

/** Most bytes that a stream of objects in a PDF is unpacked to. */
const MOST = 100_000_000;

/**
 * Whether something may have been written on a stored PDF with another program. Looked at here, where a thread is warm: most
 * files have nothing, and theirs is the first page that somebody waits for.
 */
export async function mayBeWrittenOn({ path }: { readonly path: string }): Promise<boolean> {
  return mayHaveAnnotations(await readFile(path), {
    inflate: (bytes) => inflateSync(bytes, { maxOutputLength: MOST }),
    find: (bytes, word, from) =>
      Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).indexOf(word, from, 'latin1'),
  });
}

/** Whether a stored PDF is protected by its maker. Throws `PdfError` for one that can't be read. */
export async function isProtected({ path }: { readonly path: string }): Promise<boolean> {
  const pdf = await inspectPdf(new Uint8Array(await readFile(path)));
  try {
    return await pdf.isProtected();
  } finally {
    await pdf.close();
  }
}

/** Looks at the pages of a PDF and reports them in runs, so that work on the first can begin. */
export async function inspect({ path, from, most, port }: InspectTask): Promise<void> {
  const tell = (news: InspectNews): void => port.postMessage(news);
  try {
    const pdf = await inspectPdf(new Uint8Array(await readFile(path)));
    try {
      tell({ kind: 'count', count: pdf.count });
      if (pdf.count > most) return tell({ kind: 'done' });
      let run: (PdfPlacement | null)[] = [];
      let size = FIRST;
      let named = false;
      for (let number = from; number <= pdf.count; number++) {
        run.push(await pdf.placement(number).catch(() => null));
        if (run.length === size || number === pdf.count) {
          tell({ kind: 'pages', pages: run });
          run = [];
          if (size === FIRST && pdf.count > SHORT) await setTimeout(BREATH);
          size = RUN;
          if (!named) tell({ kind: 'names', names: await pdf.names() });
          named = true;
        }
      }
      tell({ kind: 'done' });
    } finally {
      await pdf.close();
    }
  } catch (error) {
    if (!(error instanceof PdfError)) throw error;
    tell({ kind: 'fault', fault: error.fault });
  }
}
