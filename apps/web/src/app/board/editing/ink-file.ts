import { ProblemDetailsError } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';

export interface InkTask {
  readonly file: Blob;
  /** In points. */
  readonly page: { readonly width: number; readonly height: number };
}

export type InkNews =
  | { readonly kind: 'ink'; readonly ink: readonly Uint8Array[] }
  | { readonly kind: 'fault'; readonly fault: 'not-inkml' | 'too-much' | 'no-ink' };

const WORDS: Record<Extract<InkNews, { kind: 'fault' }>['fault'], ProblemDetails> = {
  'not-inkml': {
    type: 'urn:cuaderno:not-inkml',
    title: 'This ink can’t be read.',
    detail: 'Choose a file in InkML, as other programs save handwriting. Nothing was changed.',
  },
  'too-much': {
    type: 'urn:cuaderno:too-much-ink',
    title: 'That is more ink than a page holds.',
    detail: 'Save it page by page where it comes from, and open one page. Nothing was changed.',
  },
  'no-ink': {
    type: 'urn:cuaderno:no-ink',
    title: 'There is no ink in that file.',
    detail: 'Choose another one. Nothing was changed.',
  },
};

/** Thrown where a file of ink can't be laid on a page. */
export class InkFileError extends ProblemDetailsError {
  override readonly name = 'InkFileError';
}

export function isInkFile({ name, type }: File): boolean {
  return /\.inkml$/i.test(name) || type === 'application/inkml+xml';
}

/** Lines of ink (coded) that a file lays on a page. Throws `InkFileError`, or an `AbortError` if given up. */
export function readInkFile(
  file: Blob,
  page: InkTask['page'],
  signal: AbortSignal,
): Promise<readonly Uint8Array[]> {
  const worker = new Worker(new URL('./ink.worker', import.meta.url), { type: 'module' });
  return new Promise<readonly Uint8Array[]>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError')));
    worker.onmessage = ({ data }: MessageEvent<InkNews>) => {
      if (data.kind === 'ink') resolve(data.ink);
      else reject(new InkFileError(WORDS[data.fault]));
    };
    // Out of memory, say.
    worker.onerror = () => reject(new InkFileError(WORDS['too-much']));
    worker.postMessage({ file, page } satisfies InkTask);
  }).finally(() => worker.terminate());
}
