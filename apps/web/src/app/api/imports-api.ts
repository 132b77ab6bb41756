import type { Answer } from '@cuaderno/contract/route';
import {
  cancelImport,
  markReportSeen,
  prepareImport,
  readImport,
  readImportReport,
} from '@cuaderno/contract/routes/imports';
import { inject, Injectable } from '@angular/core';
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
import { Api } from './api';
import type { ParamOf } from './api';
import { ApiError } from './problem';
import type { BoardInfo } from './shapes';

/** How far slides are on their way to pages. */
export type ImportState = Answer<typeof readImport>;

/** How often it is asked how far slides are, in ms. */
const ASKED = 120;

/** What is asked of the server about slides that are made boards. */
@Injectable({ providedIn: 'root' })
export class ImportsApi {
  private readonly api = inject(Api);

  /** What turns slides into pages is started before they are there. */
  prepareImport(): Observable<Answer<typeof prepareImport>> {
    return this.api.call(prepareImport);
  }

  /** How far an import is, asked anew every so many ms until it has come to its end. Fails with `ApiError`. */
  followImport(job: string, every: number): Observable<ImportState> {
    return this.api.call(readImport, { params: { job } }).pipe(
      repeat({ delay: every }),
      takeWhile(({ kind }) => kind !== 'done' && kind !== 'failed', true),
    );
  }

  /**
   * The board that slides become, as soon as there is something to look at; `null` if it was given up.
   * Throws `ApiError`.
   */
  boardOfImport(
    job: string,
    say: (words: string) => void,
    signal: AbortSignal,
  ): Promise<BoardInfo | null> {
    const board = this.followImport(job, ASKED).pipe(
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
          this.api.call(cancelImport, { params: { job } }).subscribe({ error: () => undefined });
      }),
    );
    return lastValueFrom(board);
  }

  readImportReport(
    board: ParamOf<typeof readImportReport, 'board'>,
  ): Observable<Answer<typeof readImportReport>> {
    return this.api.call(readImportReport, { params: { board } });
  }

  markReportSeen(
    board: ParamOf<typeof markReportSeen, 'board'>,
  ): Observable<Answer<typeof markReportSeen>> {
    return this.api.call(markReportSeen, { params: { board } });
  }
}

/** @param before how many decks are before these */
function sayImport(before: number): string {
  if (before === 0) return 'Turning slides into pages';
  return before === 1 ? 'One deck is before it' : `${before} decks are before it`;
}
