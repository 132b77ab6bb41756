/// <reference lib="webworker" />
import { encodeStroke } from '@cuaderno/core/ink';
import { InkMlError, placeInk, readInkMl } from '@cuaderno/formats/inkml';
import type { InkNews, InkTask } from './ink-file';

/* Reads a file of ink away from the thread that draws. */
addEventListener('message', async ({ data }: MessageEvent<InkTask>) => {
  const answer = (news: InkNews): void => postMessage(news);
  try {
    const strokes = placeInk(readInkMl(await data.file.text()), data.page);
    answer({ kind: 'ink', ink: strokes.map(encodeStroke) });
  } catch (error) {
    answer({ kind: 'fault', fault: error instanceof InkMlError ? error.fault : 'not-inkml' });
  }
});
