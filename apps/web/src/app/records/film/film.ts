import { ProblemDetailsError } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { PaperSource } from '../../board/drawing/paper-source';
import type { FilmNews, FilmTask, FilmWord } from './film-task';
import { shownZone } from '../../ui/time/shown-zone';
import { fontSources } from './fonts';

const WORDS: Record<Extract<FilmNews, { kind: 'fault' }>['fault'], ProblemDetails> = {
  'no-encoder': {
    type: 'urn:cuaderno:no-film-encoder',
    title: 'This browser can’t make films.',
    detail: isSecureContext
      ? 'Save the film in another one, such as a current Chrome, Edge or Safari.'
      : 'Browsers make films at addresses that begin with https. Ask the person who runs the server for such an address.',
  },
  failed: {
    type: 'urn:cuaderno:film-failed',
    title: 'The film could not be made.',
    detail: 'The record is safe. Try again, at a higher speed if the lesson was long.',
  },
};

/** Thrown where no film can be made. */
export class FilmError extends ProblemDetailsError {
  override readonly name = 'FilmError';
}

/**
 * A film (WebM) of a replay, made by a worker.
 * @param told how much of it is made, from 0 to 1
 * Throws `FilmError`, or an `AbortError` if given up.
 */
export function makeFilm(
  task: Omit<FilmTask, 'kind' | 'fonts' | 'zone'>,
  papers: Pick<PaperSource, 'draw'>,
  told: (part: number) => void,
  signal: AbortSignal,
): Promise<{ blob: Blob; length: number }> {
  const worker = new Worker(new URL('./film.worker', import.meta.url), { type: 'module' });
  const send = (word: FilmWord, transfer: Transferable[] = []): void =>
    worker.postMessage(word, transfer);
  return new Promise<{ blob: Blob; length: number }>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError')));
    worker.onmessage = ({ data }: MessageEvent<FilmNews>) => {
      switch (data.kind) {
        case 'paper':
          void printed(papers, data, signal).then((bitmap) =>
            send({ kind: 'paper', ask: data.ask, bitmap }, bitmap ? [bitmap] : []),
          );
          break;
        case 'progress':
          told(data.part);
          break;
        case 'done':
          resolve({
            blob: new Blob([data.film as Uint8Array<ArrayBuffer>], { type: 'video/webm' }),
            length: data.length,
          });
          break;
        case 'fault':
          reject(Object.assign(new FilmError(WORDS[data.fault]), { cause: data.why }));
      }
    };
    // Out of memory, say.
    worker.onerror = () => reject(new FilmError(WORDS.failed));
    send({ ...task, kind: 'make', fonts: fontSources(), zone: shownZone() });
  }).finally(() => worker.terminate());
}

/** What is printed on an imported page; `null` where it can't be drawn, and the film has a white page there. */
async function printed(
  papers: Pick<PaperSource, 'draw'>,
  { paper, width, height, scale }: Extract<FilmNews, { kind: 'paper' }>,
  signal: AbortSignal,
): Promise<ImageBitmap | null> {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  try {
    await papers.draw(paper, canvas, { x: 0, y: 0, scale }, signal);
    return await createImageBitmap(canvas);
  } catch {
    return null;
  }
}
