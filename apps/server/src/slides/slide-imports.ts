import { changePage, keyBetween, materialOn, operation, pagesInOrder } from '@cuaderno/core';
import type { Actor, Board, Id, MediaSpec, Operation, Page, PictureSpec } from '@cuaderno/core';
// Not the whole of slides-in: what reads decks needs 20 MB of memory, and is there in its own thread.
import { reportOn } from '@cuaderno/formats/slides-in/report';
import type { Deck, DeckFault, DeckKind, DeckMedia } from '@cuaderno/formats/slides-in';
import type { FastifyBaseLogger } from 'fastify';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { Imports, Upload } from '../pdf-imports/import.js';
import type { BoardInfo, Boards } from '../boards/service.js';
import type { FileStore, StoredFile } from '../files/store.js';
import { hostOf } from '../live/lesson-bus.js';
import type { LessonBus } from '../live/lesson-bus.js';
import type { MaterialIntake } from '../intake/intake.js';
import { UNPACKED } from '../intake/packed.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { DeckReader } from './deck-reader.js';
import { OfficeError } from './office.js';
import type { Office, OfficeFault } from './office.js';
import type { Reports } from './reports.js';

const DECK_FAULTS: Record<DeckFault, ProblemCode> = {
  broken: 'deck-broken',
  locked: 'deck-locked',
  'too-large': 'zip-too-large',
  unsafe: 'zip-unsafe',
};

const OFFICE_FAULTS: Record<OfficeFault, ProblemCode> = {
  missing: 'deck-no-converter',
  'too-slow': 'deck-too-slow',
  failed: 'deck-broken',
};

export interface SlideUpload extends Upload {
  readonly maxUploadBytes: number;
}

/** A deck as it came, and where it lies without what is outside of it. */
interface ClosedDeck {
  readonly file: StoredFile;
  readonly kind: DeckKind;
  readonly closed: string;
}

/** Tells how far an import is. */
export interface SlideNews {
  /** There is a board to look at; the rest is coming. */
  board(board: BoardInfo): void;
}

/**
 * Makes boards of slides. LibreOffice turns a deck into pages; what is lost on that way is read from the
 * deck itself: titles become names, notes margins, hidden slides pages hidden, and sounds and films
 * lie where they lay.
 */
export class SlideImports {
  constructor(
    private readonly parts: {
      readonly boards: Boards;
      readonly bus: LessonBus;
      readonly store: FileStore;
      readonly material: MaterialIntake;
      readonly imports: Imports;
      readonly decks: DeckReader;
      readonly office: Office;
      readonly reports: Reports;
      readonly log: FastifyBaseLogger;
    },
  ) {}

  /** What kind of deck a stored file is, or `null`. Throws the problem of one that is locked or a trap. */
  async kindOf(file: StoredFile, maxUploadBytes: number): Promise<DeckKind | null> {
    const news = await this.parts.decks.sniff({
      path: file.path,
      maxBytes: maxUploadBytes * UNPACKED,
    });
    if (news.kind === 'fault') throw new ProblemError(DECK_FAULTS[news.fault]);
    return news.kind === 'kind' ? news.is : null;
  }

  /** Throws the problem that keeps the deck from becoming a board. */
  async run(
    file: StoredFile,
    kind: DeckKind,
    upload: SlideUpload,
    news: SlideNews,
    signal: AbortSignal,
  ): Promise<void> {
    const { office } = this.parts;
    signal.throwIfAborted();
    // What the program that converts it is given names nothing outside of itself.
    const closed = await this.closed(file, kind, upload);
    try {
      const deck = { file, kind, closed };
      if (kind !== 'ppt') return await this.convert(deck, file, upload, news, signal);
      // What a PPT holds besides its slides is read from what it is as PPTX.
      await office.convert(closed, kind, 'pptx', signal, async (path) =>
        this.convert(deck, { path }, upload, news, signal),
      );
    } catch (error) {
      if (error instanceof OfficeError) throw new ProblemError(OFFICE_FAULTS[error.fault]);
      throw error;
    } finally {
      await rm(closed, { force: true });
    }
  }

  private async closed(
    { path }: StoredFile,
    kind: DeckKind,
    { maxUploadBytes }: SlideUpload,
  ): Promise<string> {
    const { decks, store } = this.parts;
    const maxBytes = maxUploadBytes * UNPACKED;
    const news = await decks.close({ path, kind, maxBytes, folder: store.incoming });
    if (news.kind === 'fault') throw new ProblemError(DECK_FAULTS[news.fault]);
    if (news.kind !== 'closed') throw new ProblemError('deck-broken');
    return news.place;
  }

  private async convert(
    { file, kind, closed }: ClosedDeck,
    readable: { readonly path: string },
    upload: SlideUpload,
    news: SlideNews,
    signal: AbortSignal,
  ): Promise<void> {
    const { imports, office, reports, store, decks } = this.parts;
    // Read while it is being converted. That it isn't a trap was seen when it came.
    const reading = decks.open({
      path: readable.path,
      folder: store.incoming,
      maxBytes: upload.maxUploadBytes * UNPACKED,
    });
    const read = async (): Promise<{ deck: Deck; files: ReadonlyMap<string, string> }> => {
      const news = await reading;
      if (news.kind === 'fault') throw new ProblemError(DECK_FAULTS[news.fault]);
      if (news.kind !== 'deck') throw new ProblemError('deck-broken');
      return news;
    };
    try {
      const { board, hash } = await office.convert(closed, kind, 'pdf', signal, async (path) => {
        const { deck } = await read();
        if (deck.slides.some(({ media }) => media.length > 0)) await decks.stripPdf(path);
        const pdf = await store.put(createReadStream(path), Infinity);
        const made = await imports.begin(pdf, { ...upload, madeOf: file.hash });
        const { id, course, title, createdAt } = made;
        return { board: { id, course, title, createdAt }, hash: made.file };
      });
      news.board(board);
      const { deck, files } = await read();
      const asked = [...new Set(deck.slides.flatMap(({ fonts }) => fonts))];
      const fonts = Promise.all([
        decks.fontsOfPdf(store.path(hash)),
        office.standIns(asked),
        office.letters(),
      ]);
      await imports.settled();
      const problems = await this.finish(board.id, hash, deck, files, upload.tutor);
      const [used, standIn, has] = await fonts;
      await reports.keep(board.id, reportOn(deck, used, problems, { standIn, has }));
    } finally {
      const news = await reading;
      if (news.kind === 'deck')
        for (const place of news.files.values()) await rm(place, { force: true });
    }
  }

  /** Gives the pages what was on their slides besides; returns what is wrong with sounds and films. */
  private async finish(
    board: Id,
    hash: string,
    deck: Deck,
    files: ReadonlyMap<string, string>,
    tutor: Id,
  ): Promise<(string | null)[][]> {
    const maren: Actor = { id: tutor, role: 'tutor', trust: 'hands', imports: true };
    const host = await hostOf(this.parts.bus, board);
    const pages = await host.between((state) => pagesOf(state, hash));
    const problems: (string | null)[][] = [];
    const ops: Operation[] = [];
    for (const [i, slide] of deck.slides.entries()) {
      const page = pages.get(i + 1);
      const list: (string | null)[] = [];
      problems.push(list);
      if (!page) continue;
      const change = await host.between((state) =>
        changePage(state, page.id, {
          name: slide.title.slice(0, 200),
          ...(slide.notes.length > 0 ? { privateNotes: slide.notes } : {}),
          ...(slide.hidden ? { hidden: true } : {}),
        }),
      );
      if (change) ops.push(operation(change));
      let order = materialOn(page).at(-1)?.order ?? null;
      for (const media of slide.media) {
        try {
          const item = await this.media(
            board,
            media,
            files,
            page,
            deck,
            (order = keyBetween(order, null)),
          );
          ops.push(operation({ kind: 'item.add', page: page.id, item }));
          list.push(null);
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          list.push(`${error.problem.title} ${error.problem.detail}`);
        }
      }
    }
    await host.applyAs(ops, maren);
    return problems;
  }

  private async media(
    board: Id,
    media: DeckMedia,
    files: ReadonlyMap<string, string>,
    page: Page,
    deck: Deck,
    order: string,
  ): Promise<MediaSpec | PictureSpec> {
    const place = media.path === null ? undefined : files.get(media.path);
    if (!place) throw new ProblemError('media-elsewhere');
    const kept = await this.keep(board, media.name, place);
    const scale = deck.width > 0 ? page.width / deck.width : 1;
    const { x, y, width, height, turn } = media.frame;
    const frame = {
      x: x * scale,
      y: y * scale,
      width: Math.max(1, width * scale),
      height: Math.max(1, height * scale),
      turn: Math.max(-360, Math.min(360, turn)),
    };
    const common = { layer: 'material', order, frame, file: kept.file, fixed: true } as const;
    if (kept.kind === 'picture') return { ...common, kind: 'picture' };
    const shot = media.poster === null ? undefined : files.get(media.poster);
    const poster =
      kept.kind === 'film' && shot
        ? await this.keep(board, media.name, shot).catch(() => null)
        : null;
    return {
      ...common,
      kind: 'media',
      medium: kept.kind,
      name: media.name.slice(0, 200),
      length: kept.length,
      ...(poster?.kind === 'picture' ? { poster: poster.file } : {}),
    };
  }

  private keep(board: Id, name: string, place: string): ReturnType<MaterialIntake['receive']> {
    return this.parts.material.receive(board, name, createReadStream(place), Infinity);
  }
}

/** Pages of a board by their number in a file. */
function pagesOf(board: Board, hash: string): ReadonlyMap<number, Page> {
  return new Map(
    pagesInOrder(board).flatMap((page) =>
      page.paper.kind === 'pdf' && page.paper.file === hash ? [[page.paper.number, page]] : [],
    ),
  );
}
