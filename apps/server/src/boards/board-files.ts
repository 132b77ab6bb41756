import {
  additionOf,
  emptyBoard,
  filesOf,
  MAX_PAGES_AT_ONCE,
  operation,
  PersonName,
  Sequencer,
} from '@cuaderno/core';
import type { Actor, Entry, Id, Item, Operation, PageSpec } from '@cuaderno/core';
import { itemsOfJson } from '@cuaderno/formats/board-file';
import type { BoardFileFault, BoardJson, BoardWriter } from '@cuaderno/formats/board-file';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { FileStore, StoredFile } from '../files/store.js';
import type { KnownFiles } from '../files/known-files.js';
import type { MaterialIntake } from '../intake/intake.js';
import { UNPACKED } from '../intake/packed.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { Workers } from '../workers/plugin.js';
import type { LogStore } from './log-store.js';
import type { BoardInfo, Boards } from './service.js';
import type { BoardWriters } from './writers.js';

const FAULTS: Record<BoardFileFault, ProblemCode> = {
  broken: 'zip-broken',
  'not-a-board': 'zip-unknown',
  version: 'board-file-newer',
  'too-large': 'zip-too-large',
  unsafe: 'zip-unsafe',
  shape: 'board-file-broken',
};

/** Why a file is no board file that can be opened, for people. */
export function boardFileProblem(fault: BoardFileFault): ProblemError {
  return new ProblemError(FAULTS[fault]);
}

interface Wish {
  readonly course: string;
  readonly tutor: Id;
  readonly maxUploadBytes: number;
}

/** Opens board files: what was saved becomes a board again, with everyone's ink as it was. */
export class BoardFiles {
  constructor(
    private readonly boards: Boards,
    private readonly logs: LogStore,
    private readonly store: FileStore,
    private readonly known: KnownFiles,
    private readonly material: MaterialIntake,
    private readonly workers: Workers,
    private readonly writers: BoardWriters,
  ) {}

  /** Throws the problem that keeps the file from becoming a board; then nothing was made. */
  async open(file: StoredFile, wish: Wish): Promise<BoardInfo> {
    const news = await this.workers.openBoardFile({
      path: file.path,
      folder: this.store.incoming,
      maxBytes: wish.maxUploadBytes * UNPACKED,
    });
    if (news.kind === 'fault') throw boardFileProblem(news.fault);
    const kept: Kept[] = [];
    try {
      for (const { hash, path } of news.board.files) {
        const place = news.files.get(path);
        if (!place) throw new ProblemError('board-file-broken');
        kept.push(await this.keep(hash, place));
      }
      const board = withFiles(news.board, new Map(kept.map(({ was, hash }) => [was, hash])));
      const entries = logOf(board, wish.tutor);
      const { num, ...info } = await this.boards.begin(wish.course, board.title, null);
      for (const { hash, bytes, type } of kept)
        await this.boards.addFile(info.id, { hash, bytes, type, name: '' });
      await this.logs.append(num, entries);
      await this.writers.came(info.id, peopleOf(board));
      await this.boards.finished(info.id);
      return info;
    } finally {
      for (const place of news.files.values()) await rm(place, { force: true });
      // What no board shows in the end isn't kept.
      for (const { hash } of kept) await this.known.dropUnknown(hash);
    }
  }

  /** Takes in one of its files as if it had been brought by itself. */
  private async keep(was: string, place: string): Promise<Kept> {
    const came = await this.store.put(createReadStream(place), Infinity);
    if (came.hash !== was) {
      await this.known.dropUnknown(came.hash);
      throw new ProblemError('board-file-broken');
    }
    const { hash, bytes, type } = await this.material.check(came);
    return { was, hash, bytes, type };
  }
}

interface Kept {
  /** What it was called in the file. */
  readonly was: string;
  readonly hash: string;
  readonly bytes: number;
  readonly type: string;
}

/** The board with its files as they are called here. Throws where it names one that isn't there. */
function withFiles(board: BoardJson, files: ReadonlyMap<string, string>): BoardJson {
  const here = (hash: string): string => {
    const file = files.get(hash);
    if (!file) throw new ProblemError('board-file-broken');
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
function peopleOf({ people = [] }: BoardJson): BoardWriter[] {
  return people.flatMap((person) => {
    const name = PersonName.safeParse(person.name);
    return name.success ? [{ ...person, name: name.data }] : [];
  });
}

/** The log that makes this board. Throws where any of it is something no board takes. */
function logOf(board: BoardJson, tutor: Id): Entry[] {
  const entries: Entry[] = [];
  const sequencer = new Sequencer(emptyBoard('-'), 0);
  const add = (op: Operation, by: Id, at: number, lesson: Id | null): void => {
    const actor: Actor = { id: by, role: 'tutor', trust: 'hands', imports: true };
    const verdict = sequencer.offer(op, actor, at, lesson);
    if (verdict.kind !== 'taken') throw new ProblemError('board-file-broken');
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
    // Ink that no pen could have written.
    throw new ProblemError('board-file-broken');
  }
}

/** What a page is, without what lies on it. */
function pageOf(page: BoardJson['pages'][0]): PageSpec {
  const spec: Partial<BoardJson['pages'][0]> = { ...page };
  delete (spec as { items?: unknown }).items;
  return spec as PageSpec;
}
