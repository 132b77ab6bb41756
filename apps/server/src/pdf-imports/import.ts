import {
  A4,
  changePage,
  keysBetween,
  MAX_PAGES_AT_ONCE,
  MAX_SIDE,
  MIN_SIDE,
  newId,
  operation,
  pagesInOrder,
  shownSize,
} from '@cuaderno/core';
import type { Actor, Board, Entry, Operation, PageSpec, PdfPlacement } from '@cuaderno/core';
import type { TakenItem } from '@cuaderno/formats/pdf-annotations';
import type { PdfFault } from '@cuaderno/formats/pdf-in';
import type { FastifyBaseLogger } from 'fastify';
import type { FileStore, StoredFile } from '../files/store.js';
import { hostOf } from '../live/lesson-bus.js';
import type { LessonBus } from '../live/lesson-bus.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { PdfReader } from '../pdf/pdf-reader.js';
import { AnnotationImport, writing } from './annotation-import.js';
import type { PdfWithoutAnnotations, ImportedAnnotationCounts } from './annotation-import.js';
import type { BoardInfo, Boards } from '../boards/service.js';
import type { BoardWriters } from '../boards/writers.js';

const FAULTS: Record<PdfFault | 'too-slow', ProblemCode> = {
  'too-slow': 'file-too-slow',
  empty: 'file-empty',
  'not-pdf': 'file-not-pdf',
  truncated: 'file-truncated',
  locked: 'file-locked',
  broken: 'file-broken',
};

/** Most pages that are laid into a board that is there. */
const MAX_PAGES_INTO = 5000;

/** What a file calls its pages, by number. */
type PageNames = ReadonlyMap<number, string>;

/** What is done in the name of the one who wrote it. */
type MadeBoard = Omit<Entry, 'seq'>;

/** Pages of a file that follow each other. */
interface FilePages {
  readonly file: string;
  /** `null` for one that can't be read. */
  readonly placements: readonly (PdfPlacement | null)[];
  /** Number of the first of them. */
  readonly first: number;
  readonly names: PageNames;
  /** What was written on the file's pages, by their numbers. */
  readonly written: ReadonlyMap<number, readonly TakenItem[]>;
}

/** A board that was made of a PDF, with the file that it shows. */
export interface ImportedBoard extends BoardInfo {
  readonly file: string;
  readonly annotations: ImportedAnnotationCounts;
}

export interface Upload {
  readonly course: string;
  readonly tutor: string;
  readonly title: string;
  readonly fileName: string;
  readonly maxPages: number;
  /** The file that this PDF was made of, if it isn't as it came. */
  readonly madeOf?: string;
}

/**
 * Makes boards of PDFs. The board is there as soon as the first pages are known; the others follow
 * while the tutor is looking at them, and an import that a stopped server left half done is taken
 * up when it starts again.
 */
export class Imports {
  private readonly running = new Set<Promise<void>>();
  private readonly annotationImport: AnnotationImport;

  constructor(
    private readonly boards: Boards,
    private readonly bus: LessonBus,
    private readonly store: FileStore,
    private readonly reader: PdfReader,
    private readonly log: FastifyBaseLogger,
    private readonly writers: BoardWriters,
  ) {
    this.annotationImport = new AnnotationImport(store, reader);
  }

  /**
   * What was written on the file with other programs comes as ink, and the board has the file without it. Throws the
   * problem that keeps the file from becoming a board; then nothing was made.
   */
  async begin(file: StoredFile, upload: Upload): Promise<ImportedBoard> {
    const annotations = await this.annotationImport.lift(file);
    const made = upload.madeOf ?? annotations.madeOf;
    try {
      const board = await this.make(annotations, made ? { ...upload, madeOf: made } : upload);
      return { ...board, file: annotations.file.hash, annotations: annotations.sum };
    } finally {
      annotations.release();
      await this.boards.known.dropUnknown(annotations.file.hash);
    }
  }

  private make(annotations: PdfWithoutAnnotations, upload: Upload): Promise<BoardInfo> {
    const { file, written } = annotations;
    return new Promise<BoardInfo>((resolve, reject) => {
      let count = 0;
      let board: Promise<BoardInfo> | null = null;
      let names: PageNames = new Map();
      const naming: Operation[] = [];
      const take = {
        count: (n: number) => {
          count = n;
          if (n > upload.maxPages) throw tooMany(n, upload.maxPages);
        },
        pages: async (placements: readonly (PdfPlacement | null)[], first: number) => {
          if (!board) {
            if (!placements.some((placement) => placement && fits(placement)))
              throw new ProblemError(placements.some(Boolean) ? 'page-size' : 'file-broken');
            const { title, fileName: name, course, madeOf = null } = upload;
            board = this.boards.make(course, title, { ...file, name, pages: count, madeOf });
            naming.push(operation({ kind: 'board.rename', title, former: '' }));
          }
          const { id } = await board;
          const ops = naming.splice(0);
          const run = { file: file.hash, placements, first, names, written };
          await this.addPages(id, upload.tutor, run, ops);
          resolve(await board);
        },
        names: async (found: PageNames) => {
          names = found;
          if (board) await this.namePages((await board).id, upload.tutor, file.hash, found);
        },
      };
      const work = this.inspect(file.path, 1, take, upload.maxPages);
      this.track(
        work.catch((error: unknown) => {
          reject(error as Error);
          if (board) this.log.error({ err: error }, 'an import stopped half way');
        }),
      );
    });
  }

  /**
   * Brings the pages of a stored PDF to a board that is there, after one of its pages or at its end.
   * Throws the problem that keeps the file from being shown; then nothing came.
   */
  async into(
    board: string,
    file: StoredFile,
    tutor: string,
    after: string | null,
    maxPages = MAX_PAGES_INTO,
  ): Promise<string[]> {
    let names: PageNames = new Map();
    const placements: (PdfPlacement | null)[] = [];
    const { file: shown, madeOf, written, release } = await this.annotationImport.lift(file);
    try {
      const take = {
        count: (n: number) => {
          if (n > maxPages) throw tooMany(n, maxPages);
        },
        pages: (run: readonly (PdfPlacement | null)[]) =>
          Promise.resolve(void placements.push(...run)),
        names: (found: PageNames) => Promise.resolve(void (names = found)),
      };
      await this.inspect(shown.path, 1, take, maxPages);
      if (!placements.some(Boolean)) throw new ProblemError('file-broken');
      if (madeOf)
        await this.boards.addFile(board, { ...shown, type: 'application/pdf', name: '', madeOf });
      else await this.boards.useFile(board, shown.hash);
      const run = { file: shown.hash, placements, first: 1, names, written };
      return await this.addPages(board, tutor, run, [], after);
    } finally {
      release();
      await this.boards.known.dropUnknown(shown.hash);
    }
  }

  /** How many pages a stored PDF has. Throws the problem that keeps it from being shown. */
  async count(path: string): Promise<number> {
    let count = 0;
    const take = {
      count: (n: number) => void (count = n),
      pages: () => Promise.resolve(),
      names: () => Promise.resolve(),
    };
    await this.inspect(path, Infinity, take);
    return count;
  }

  /** A board of one's own: a single empty page to begin on. */
  async empty(course: string, title: string, tutor: string): Promise<BoardInfo> {
    const board = await this.boards.make(course, title);
    const page = { id: newId(), order: keysBetween(null, null, 1)[0]!, name: '', ...A4 };
    await (
      await hostOf(this.bus, board.id)
    ).applyAs(
      [
        operation({ kind: 'board.rename', title, former: '' }),
        operation({ kind: 'pages.add', pages: [{ ...page, paper: { kind: 'plain' } }] }),
      ],
      tutorActor(tutor),
    );
    return board;
  }

  /** Goes on with imports that were cut off by a stop of the server. */
  async resume(): Promise<void> {
    for (const { board, hash, pages, madeOf } of await this.boards.allFiles()) {
      const host = await this.bus.host(board);
      if (!host) continue;
      const there = await host.between((state) => broughtFrom(state, hash));
      if (there >= pages) continue;
      this.log.info({ board, from: there + 1, pages }, 'an import goes on');
      const owner = await this.boards.owner(board);
      let names: PageNames = new Map();
      // What was written comes with its page, so pages that are there have it.
      const taken = madeOf ? await this.reader.annotationsOf(this.store.path(madeOf)) : null;
      const written = taken?.pages ?? new Map<number, readonly TakenItem[]>();
      await this.inspect(this.store.path(hash), there + 1, {
        count: () => undefined,
        pages: async (placements, first) => {
          await this.addPages(board, owner, { file: hash, placements, first, names, written });
        },
        names: async (found) => {
          names = found;
          await this.namePages(board, owner, hash, found);
        },
      });
    }
  }

  /** Waits for imports under way. */
  async settled(): Promise<void> {
    while (this.running.size > 0) await Promise.all(this.running);
  }

  private track(work: Promise<void>): void {
    this.running.add(work);
    const done = (): void => void this.running.delete(work);
    work.then(done, done);
  }

  private async addPages(
    board: string,
    tutor: string,
    { file, placements, first, names, written }: FilePages,
    before: readonly Operation[] = [],
    /** The page they follow, the last where it isn't there; `start` for before all. */
    after: string | null = null,
  ): Promise<string[]> {
    const host = await hostOf(this.bus, board);
    const { keys, lesson } = await host.between((state, _seq, here) => {
      const there = pagesInOrder(state);
      const found = there.findIndex(({ id }) => id === after);
      const at = after === 'start' ? -1 : found < 0 ? there.length - 1 : found;
      const [low, high] = [there[at]?.order ?? null, there[at + 1]?.order ?? null];
      return { keys: keysBetween(low, high, placements.length), lesson: here.lesson };
    });
    const pages = placements.map((placement, i) =>
      page(placement, file, first + i, keys[i]!, names),
    );
    const now = Date.now();
    const own = (op: Operation): MadeBoard => ({ op, by: tutor, at: now, lesson });
    const made: MadeBoard[] = before.map(own);
    for (let i = 0; i < pages.length; i += MAX_PAGES_AT_ONCE)
      made.push(
        own(operation({ kind: 'pages.add', pages: pages.slice(i, i + MAX_PAGES_AT_ONCE) })),
      );
    const here = pages.map(({ paper }, i) =>
      paper.kind === 'pdf' ? (written.get(first + i) ?? []) : [],
    );
    const authors = await this.writers.named(
      board,
      tutor,
      here.flat().map(({ author }) => author),
    );
    pages.forEach(({ id }, i) =>
      writing(id, here[i]!).forEach((op, n) => {
        const { author, at } = here[i]![n]!;
        // Whose clock was wrong wrote nothing that is still to come.
        const by = authors.get(author) ?? tutor;
        // It wasn't written in the lesson in which it is brought.
        made.push({ op, by, at: Math.min(at ?? now, now), lesson: null });
      }),
    );
    // All of it together: a page is never there without what was written on it.
    await host.append(made);
    return pages.map(({ id }) => id);
  }

  /** Gives pages that came before their names were known what the file calls them. */
  private async namePages(
    board: string,
    tutor: string,
    file: string,
    names: PageNames,
  ): Promise<void> {
    const host = await hostOf(this.bus, board);
    const ops = await host.between((state) =>
      pagesInOrder(state).flatMap(({ id, name, paper }) => {
        const called = paper.kind === 'pdf' && paper.file === file && names.get(paper.number);
        const change = called && name === '' ? changePage(state, id, { name: called }) : null;
        return change ? [operation(change)] : [];
      }),
    );
    await host.applyAs(ops, tutorActor(tutor));
  }

  /** Takes the worker's news one after the other; the first that fails ends it all. */
  private async inspect(
    path: string,
    from: number,
    take: {
      count(n: number): void;
      pages(placements: readonly (PdfPlacement | null)[], first: number): Promise<void>;
      names(names: PageNames): Promise<void>;
    },
    most = Infinity,
  ): Promise<void> {
    let number = from;
    let chain: Promise<void> = Promise.resolve();
    await this.reader.inspect(path, from, most, (news) => {
      chain = chain.then(async () => {
        if (news.kind === 'fault') throw new ProblemError(FAULTS[news.fault]);
        if (news.kind === 'count') take.count(news.count);
        if (news.kind === 'pages') {
          const first = number;
          number += news.pages.length;
          await take.pages(news.pages, first);
        }
        if (news.kind === 'names') await take.names(news.names);
      });
      chain.catch(() => undefined);
    });
    await chain;
  }
}

function tooMany(count: number, most: number): ProblemError {
  return new ProblemError('too-many-pages', {
    detail: `It has ${count} pages; a board holds ${most}. Split it and upload the part you need.`,
  });
}

function tutorActor(id: string): Actor {
  return { id, role: 'tutor', trust: 'hands', imports: true };
}

function fits(placement: PdfPlacement): boolean {
  const { width, height } = shownSize(placement);
  return Math.min(width, height) >= MIN_SIDE && Math.max(width, height) <= MAX_SIDE;
}

/** A page that can't be shown becomes an empty sheet that says so: the others keep their numbers. */
function page(
  placement: PdfPlacement | null,
  file: string,
  number: number,
  order: string,
  names: PageNames,
): PageSpec {
  const id = newId();
  if (!placement || !fits(placement))
    return {
      id,
      order,
      name: `Page ${number} of the file can’t be shown`,
      ...A4,
      paper: { kind: 'plain' },
    };
  return {
    id,
    order,
    name: names.get(number) ?? '',
    ...shownSize(placement),
    paper: { kind: 'pdf', file, number, ...placement, box: [...placement.box] },
  };
}

/** How many pages of the file have come to the board, removed ones and sheets in their place included. */
function broughtFrom(board: Board, hash: string): number {
  let last = 0;
  for (const { paper } of board.pages.values())
    if (paper.kind === 'pdf' && paper.file === hash) last = Math.max(last, paper.number);
  return last;
}
