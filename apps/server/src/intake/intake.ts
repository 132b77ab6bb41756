import type { Remark } from '@cuaderno/contract/materials';
import { isMediaHead, MEDIA_HEAD } from '@cuaderno/formats/media-in';
import type { MediaFault } from '@cuaderno/formats/media-in';
import { foreignPicture, isAvif, isHeic, PICTURE_HEAD } from '@cuaderno/formats/picture-in';
import type { PictureFault } from '@cuaderno/formats/picture-in';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { Boards } from '../boards/service.js';
import type { KnownFiles } from '../files/known-files.js';
import { tooLarge } from '../files/store.js';
import type { FileStore, StoredFile } from '../files/store.js';
import type { ImageProcess } from '../pictures/image-process.js';
import { ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { MediaReader } from './media-reader.js';

const PICTURE_FAULTS: Record<PictureFault, ProblemCode> = {
  unknown: 'material-unknown',
  broken: 'picture-broken',
  'too-large': 'picture-too-large',
  unsafe: 'picture-unsafe',
  heic: 'picture-heic',
};

const MEDIA_FAULTS: Record<MediaFault, ProblemCode> = {
  unknown: 'material-unknown',
  broken: 'media-broken',
  codec: 'media-codec',
};

/** Largest picture that is taken, in bytes: a camera's largest. */
const MAX_PICTURE = 40 * 1024 * 1024;

/** A file that is kept, and may be laid on its board. */
export type Material =
  | {
      readonly kind: 'picture';
      readonly file: string;
      /** In pixels, upright. */
      readonly width: number;
      readonly height: number;
      readonly remarks: readonly Remark[];
    }
  | {
      readonly kind: 'sound' | 'film';
      readonly file: string;
      /** In pixels; 0 for a sound. */
      readonly width: number;
      readonly height: number;
      /** In seconds. */
      readonly length: number;
      readonly remarks: readonly Remark[];
    };

/**
 * Takes in what tutors lay on pages. What it is, its content says. Of a picture, what is kept is a
 * PNG or JPEG that is safe to show; sounds and films are kept as they are.
 */
export class MaterialIntake {
  constructor(
    private readonly boards: Boards,
    private readonly store: FileStore,
    private readonly known: KnownFiles,
    private readonly imageProcess: ImageProcess,
    private readonly mediaReader: MediaReader,
  ) {}

  /** Throws the problem that keeps the file from being laid on this board; then it isn't kept. */
  async receive(board: string, name: string, input: Readable, limit: number): Promise<Material> {
    const came = await this.store.put(input, limit);
    try {
      const { facts, hash, bytes, type } = await this.check(came);
      if (!facts) throw new ProblemError('material-unknown');
      await this.boards.addFile(board, { hash, bytes, type, name });
      return { ...facts, file: hash };
    } finally {
      // What came is kept only if it is what is shown, or was there before.
      await this.known.dropUnknown(came.hash);
    }
  }

  /**
   * Looks at a stored file as at one that is brought, and says what is kept of it; PDFs, too. Throws
   * the problem that keeps it from being shown.
   */
  async check(came: StoredFile): Promise<Checked> {
    if (await isPdf(came)) return { ...came, type: 'application/pdf', facts: null };
    const head = await headOf(came.path);
    // A photo may be a file as films are.
    const foreign = foreignPicture(head.subarray(0, PICTURE_HEAD));
    if (foreign) throw new ProblemError(`picture-${foreign}`);
    const isPhoto = isAvif(head) || isHeic(head);
    if (!isPhoto && isMediaHead(head.subarray(0, MEDIA_HEAD))) {
      const news = await this.mediaReader.inspect(came.path);
      if (news.kind === 'fault') throw new ProblemError(MEDIA_FAULTS[news.fault]);
      const { medium: kind, type, width, height, length, everywhere } = news;
      const remarks = everywhere ? [] : (['some-browsers'] as const);
      return { ...came, type, facts: { kind, width, height, length, remarks } };
    }
    return this.picture(came);
  }

  /** The same for one that can only be a picture. */
  async picture(came: StoredFile): Promise<Checked> {
    if (came.bytes > MAX_PICTURE)
      throw new ProblemError('file-too-large', { detail: tooLarge(MAX_PICTURE) });
    const news = await this.imageProcess.prepare(came.path);
    if (news.kind === 'fault') throw new ProblemError(PICTURE_FAULTS[news.fault]);
    const { bytes, type, width, height, leftOut } = news;
    const kept = bytes ? await this.store.put(Readable.from([Buffer.from(bytes)]), Infinity) : came;
    return {
      ...kept,
      type,
      facts: { kind: 'picture', width, height, remarks: leftOut ? [leftOut] : [] },
    };
  }
}

/** A file that may be shown. */
export interface Checked extends StoredFile {
  readonly type: string;
  /** `null` for a PDF, which isn't laid on pages but prints them. */
  readonly facts: LooseFacts<Material> | null;
}

type LooseFacts<M> = M extends Material ? Omit<M, 'file'> : never;

async function isPdf({ path }: StoredFile): Promise<boolean> {
  return (await headOf(path)).toString('latin1').includes('%PDF-');
}

/** How far from its start a PDF may begin: see `sniffPdf`. */
const HEAD = 1024;

async function headOf(path: string): Promise<Buffer> {
  const handle = await open(path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD), 0, HEAD, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}
