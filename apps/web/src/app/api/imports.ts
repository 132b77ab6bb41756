import { ApiError } from './api';
import type { Api, Problem } from './api';
import type { BoardInfo } from './shapes';

/** How far slides are on their way to pages; see `/imports/:job`. */
export type ImportState =
  | { readonly kind: 'waiting'; readonly before: number }
  | { readonly kind: 'converting' }
  | { readonly kind: 'board' | 'done'; readonly board: BoardInfo }
  | { readonly kind: 'failed'; readonly problem: Problem };

/** How often it is asked how far slides are, in ms. */
const ASKED = 120;

/**
 * The board that slides become, as soon as there is something to look at; `null` if it was given up.
 * Throws `ApiError`.
 */
export async function boardOfImport(
  api: Api,
  job: string,
  say: (words: string) => void,
  signal: AbortSignal,
): Promise<BoardInfo | null> {
  while (!signal.aborted) {
    const state = await api.get<ImportState>(`/imports/${job}`);
    if (state.kind === 'failed') throw new ApiError(state.problem, 422);
    if (state.kind === 'board' || state.kind === 'done') return state.board;
    say(sayImport(state.kind === 'waiting' ? state.before : 0));
    await new Promise((next) => setTimeout(next, ASKED));
  }
  // Who gives up need not know whether it was too late.
  void api.post(`/imports/${job}/cancel`).catch(() => undefined);
  return null;
}

/** @param before how many decks are before these */
function sayImport(before: number): string {
  if (before === 0) return 'Turning slides into pages';
  return before === 1 ? 'One deck is before it' : `${before} decks are before it`;
}
