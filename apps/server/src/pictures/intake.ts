import { Readable } from 'node:stream';
import type { PictureFault } from '@cuaderno/formats/picture-in';
import type { Boards } from '../boards/service.js';
import type { FileStore } from '../files/store.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { Darkroom } from './darkroom.js';

const FAULTS: Record<PictureFault, ProblemCode> = {
  unknown: 'picture-unknown',
  broken: 'picture-broken',
  'too-large': 'picture-too-large',
  unsafe: 'picture-unsafe',
};

/** A picture that is kept, and may be laid on its board. */
export interface Picture {
  readonly file: string;
  /** In pixels, upright. */
  readonly width: number;
  readonly height: number;
}

/** Takes pictures in: whatever comes, what is kept is a PNG or JPEG that is safe to show. */
export class PictureIntake {
  constructor(
    private readonly boards: Boards,
    private readonly store: FileStore,
    private readonly darkroom: Darkroom,
  ) {}

  /** Throws the problem that keeps the file from being a picture on this board. */
  async take(board: string, name: string, input: Readable, limit: number): Promise<Picture> {
    const came = await this.store.put(input, limit);
    try {
      const news = await this.darkroom.prepare(came.path);
      if (news.kind === 'fault') throw new ProblemError(FAULTS[news.fault]);
      const { bytes, type, width, height } = news;
      const kept = bytes
        ? await this.store.put(Readable.from([Buffer.from(bytes)]), Infinity)
        : came;
      await this.boards.addFile(board, { hash: kept.hash, bytes: kept.bytes, type, name });
      return { file: kept.hash, width, height };
    } finally {
      await this.forget(came.hash);
    }
  }

  /** What came is kept only if it is what is shown, or was there before. */
  private async forget(hash: string): Promise<void> {
    if (!(await this.boards.knowsFile(hash))) await this.store.remove(hash);
  }
}
