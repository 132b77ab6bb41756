import type { Answer } from '@cuaderno/contract/route';
import { cancelImport, readImport } from '@cuaderno/contract/routes/imports';
import {
  defaultIfEmpty,
  finalize,
  fromEvent,
  lastValueFrom,
  map,
  repeat,
  takeUntil,
  takeWhile,
} from 'rxjs';
import type { Observable } from 'rxjs';
import type { Api } from './api';
import { ApiError } from './problem';
import type { BoardInfo } from './shapes';

/** How far slides are on their way to pages. */
export type ImportState = Answer<typeof readImport>;

/** How often it is asked how far slides are, in ms. */
const ASKED = 120;

/** How far an import is, asked anew every so many ms until it has come to its end. Fails with `ApiError`. */
export function followImport(api: Api, job: string, every: number): Observable<ImportState> {
  return api.call(readImport, { params: { job } }).pipe(
    repeat({ delay: every }),
    takeWhile(({ kind }) => kind !== 'done' && kind !== 'failed', true),
  );
}

/**
 * The board that slides become, as soon as there is something to look at; `null` if it was given up.
 * Throws `ApiError`.
 */
export function boardOfImport(
  api: Api,
  job: string,
  say: (words: string) => void,
  signal: AbortSignal,
): Promise<BoardInfo | null> {
  const board = followImport(api, job, ASKED).pipe(
    map((state) => {
      if (state.kind === 'failed') throw new ApiError(state.problem, 422);
      if (state.kind === 'board' || state.kind === 'done') return state.board;
      say(sayImport(state.kind === 'waiting' ? state.before : 0));
      return null;
    }),
    takeWhile((found) => found === null, true),
    takeUntil(fromEvent(signal, 'abort')),
    defaultIfEmpty(null),
    map((found) => (signal.aborted ? null : found)),
    // Who gives up need not know whether it was too late.
    finalize(() => {
      if (signal.aborted)
        api.call(cancelImport, { params: { job } }).subscribe({ error: () => undefined });
    }),
  );
  return lastValueFrom(board);
}

/** @param before how many decks are before these */
function sayImport(before: number): string {
  if (before === 0) return 'Turning slides into pages';
  return before === 1 ? 'One deck is before it' : `${before} decks are before it`;
}
