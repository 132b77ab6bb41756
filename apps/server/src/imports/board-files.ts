import type { Id } from '@cuaderno/core';
import { MOST } from '@cuaderno/formats/board-file';
import type { BoardFileFault } from '@cuaderno/formats/board-file';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { MessagePort } from 'node:worker_threads';
import type { FileStore, StoredFile } from '../files/store.js';
import type { KnownFiles } from '../files/known-files.js';
import type { MaterialIntake } from '../intake/intake.js';
import { UNPACKED } from '../intake/packed.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { BoardFileReader } from '../boards/board-file-reader.js';
import type { BoardInfo, Boards } from '../boards/service.js';
import type { BoardWriters } from '../boards/writers.js';

const FAULTS: Record<BoardFileFault, ProblemCode> = {
  broken: 'zip-broken',
  'not-a-board': 'zip-unknown',
  version: 'board-file-newer',
  'too-large': 'zip-too-large',
  unsafe: 'zip-unsafe',
  shape: 'board-file-broken',
  'too-much': 'board-file-too-much',
};

/** Why a file is no board file that can be opened, for people. @param message how much there is of it, where that is why */
export function boardFileProblem(fault: BoardFileFault, message = ''): ProblemError {
  const { pages, items, itemsOfPage } = MOST;
  const detail =
    fault === 'too-much' && message
      ? `It has ${message}. A board holds ${pages} pages and ${items} things, ${itemsOfPage} on one page. Save a part of it, or save it without ink.`
      : undefined;
  return new ProblemError(FAULTS[fault], detail ? { detail } : {});
}

interface ImportTarget {
  readonly course: string;
  readonly tutor: Id;
  readonly maxUploadBytes: number;
}

/** Opens board files: what was saved becomes a board again, with everyone's ink as it was. */
export class BoardFiles {
  constructor(
    private readonly boards: Boards,
    /** A port to the database, for another thread. */
    private readonly lend: () => MessagePort,
    private readonly store: FileStore,
    private readonly known: KnownFiles,
    private readonly material: MaterialIntake,
    private readonly reader: BoardFileReader,
    private readonly writers: BoardWriters,
  ) {}

  /** Throws the problem that keeps the file from becoming a board; then nothing was made. */
  async open(file: StoredFile, wish: ImportTarget): Promise<BoardInfo> {
    const news = await this.reader.open({
      path: file.path,
      folder: this.store.incoming,
      maxBytes: wish.maxUploadBytes * UNPACKED,
    });
    if (news.kind === 'fault') throw boardFileProblem(news.fault, news.message);
    const kept: KeptBoardFile[] = [];
    try {
      for (const { hash, place } of news.files) {
        if (!place) throw new ProblemError('board-file-broken');
        kept.push(await this.keep(hash, place));
      }
      return await this.make(news.title, news.json, kept, wish);
    } finally {
      for (const { place } of news.files) if (place) await rm(place, { force: true });
      await rm(news.json, { force: true });
      // What no board shows in the end isn't kept.
      for (const { hash } of kept) await this.known.dropUnknown(hash);
    }
  }

  /** The board, of its text and its files; nobody sees it before it is whole. */
  private async make(
    title: string,
    json: string,
    kept: readonly KeptBoardFile[],
    { course, tutor }: ImportTarget,
  ): Promise<BoardInfo> {
    const { num, ...info } = await this.boards.begin(course, title.trim() || 'Board', null);
    try {
      const files = new Map(kept.map(({ was, hash }) => [was, hash]));
      const laid = await this.reader.lay({ json, files, tutor, num, port: this.lend() });
      if (laid.kind === 'fault') throw boardFileProblem(laid.fault, laid.message);
      for (const { hash, bytes, type } of kept)
        await this.boards.addFile(info.id, { hash, bytes, type, name: '' });
      await this.writers.came(info.id, laid.people);
      await this.boards.finished(info.id);
      return info;
    } catch (error) {
      await this.boards.giveUp(info.id, num);
      throw error;
    }
  }

  /** Takes in one of its files as if it had been brought by itself. */
  private async keep(was: string, place: string): Promise<KeptBoardFile> {
    const came = await this.store.put(createReadStream(place), Infinity);
    if (came.hash !== was) {
      await this.known.dropUnknown(came.hash);
      throw new ProblemError('board-file-broken');
    }
    const { hash, bytes, type } = await this.material.check(came);
    return { was, hash, bytes, type };
  }
}

interface KeptBoardFile {
  /** What it was called in the file. */
  readonly was: string;
  readonly hash: string;
  readonly bytes: number;
  readonly type: string;
}
