import {
  additionOf,
  emptyBoard,
  filesOf,
  MAX_PAGES_AT_ONCE,
  operation,
  PersonName,
  Sequencer,
} from '@cuaderno/core';
import type { Actor, Entry, FileHash, Id, Item, Operation, PageSpec } from '@cuaderno/core';
import { BoardFileError, itemsOfJson } from '@cuaderno/formats/board-file';
import type { BoardWriter } from '@cuaderno/contract/board-writer';
import type { BoardJson } from '@cuaderno/formats/board-file';

/** The log of a board that was saved in a file: what made it, in the same order. */

/**
 * The board with its files as they are called here. Throws `BoardFileError` where it names one that isn't there.
 * @param files what each is called here, by what it is called in the file
 */
export function withFiles(board: BoardJson, files: ReadonlyMap<FileHash, FileHash>): BoardJson {
  const here = (hash: string): string => {
    const file = files.get(hash);
    if (!file) throw new BoardFileError('shape', 'it names a file that isn’t in it');
    return file;
  };
  return {
    ...board,
    pages: board.pages.map((page) => ({
      ...page,
      paper:
        page.paper.kind === 'pdf' ? { ...page.paper, file: here(page.paper.file) } : page.paper,
      items: page.items.map((item) => {
        if (item.kind === 'ink' || filesOf(item).length === 0) return item;
        const moved = { ...item } as typeof item & { file: string; poster?: string | null };
        moved.file = here(moved.file);
        if (moved.poster) moved.poster = here(moved.poster);
        return moved;
      }),
    })),
  };
}

/** Those whom it names, as names are written here; who has none left isn't named. */
export function peopleOf({ people = [] }: BoardJson): BoardWriter[] {
  return people.flatMap((person) => {
    const name = PersonName.safeParse(person.name);
    return name.success ? [{ ...person, name: name.data }] : [];
  });
}

/** The log that makes this board. Throws `BoardFileError` where any of it is something no board takes. */
export function logOf(board: BoardJson, tutor: Id): Entry[] {
  const entries: Entry[] = [];
  const sequencer = new Sequencer(emptyBoard('-'), 0);
  const add = (op: Operation, by: Id, at: number, lesson: Id | null): void => {
    const actor: Actor = { id: by, role: 'tutor', trust: 'hands', imports: true };
    const verdict = sequencer.offer(op, actor, at, lesson);
    if (verdict.kind !== 'taken') throw new BoardFileError('shape', `${op.kind} was not taken`);
    entries.push(verdict.entry);
  };
  const now = Date.now();
  const title = board.title.trim() || 'Board';
  add(operation({ kind: 'board.rename', title, former: '' }), tutor, now, null);
  if (board.sheet)
    add(operation({ kind: 'board.sheet', to: board.sheet, from: null }), tutor, now, null);
  for (let i = 0; i < board.pages.length; i += MAX_PAGES_AT_ONCE) {
    const pages = board.pages.slice(i, i + MAX_PAGES_AT_ONCE).map(pageOf);
    add(operation({ kind: 'pages.add', pages }), tutor, now, null);
  }
  for (const page of board.pages)
    for (const item of itemsOf(page.items))
      add(additionOf(item, page.id), item.by, item.at, item.lesson);
  return entries;
}

function itemsOf(items: BoardJson['pages'][0]['items']): Item[] {
  try {
    return itemsOfJson(items);
  } catch {
    throw new BoardFileError('shape', 'it has ink that no pen could have written');
  }
}

/** What a page is, without what lies on it. */
function pageOf(page: BoardJson['pages'][0]): PageSpec {
  const spec: Partial<BoardJson['pages'][0]> = { ...page };
  delete (spec as { items?: unknown }).items;
  return spec as PageSpec;
}
