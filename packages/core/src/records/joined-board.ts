import { emptyBoard } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import type { Id } from '../id/index.js';
import { orderInRecord, pageInRecord } from './page-in-record.js';

/** Letters of a title at most. */
const LONGEST = 200;

/** The boards of a record as one: see `page-in-record.ts`. Of one alone, that board itself. */
export function joinBoards(boards: readonly Board[]): Board {
  const [first] = boards;
  if (!first) return emptyBoard('____________');
  if (boards.length === 1) return first;
  const unreadable = boards.reduce((sum, board) => sum + (board.unreadable ?? 0), 0);
  return {
    ...first,
    title: recordTitle(boards.map(({ title }) => title)),
    pages: new Map(boards.flatMap((board, place) => pagesOf(board, place))),
    ...(unreadable > 0 ? { unreadable } : {}),
  };
}

/** What the record of a lesson on boards of these titles is called. */
export function recordTitle(titles: readonly string[]): string {
  const all = [...new Set(titles)].join(', ');
  return all.length <= LONGEST ? all : `${all.slice(0, LONGEST - 1)}…`;
}

function pagesOf(board: Board, place: number): [Id, Page][] {
  const here = { id: board.id, place };
  return [...board.pages.values()].map((page) => {
    const id = pageInRecord(page.id, here);
    return [id, place === 0 ? page : { ...page, id, order: orderInRecord(page.order, here) }];
  });
}
