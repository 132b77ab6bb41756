import { filesOf, itemsOn, pagesInOrder } from '@cuaderno/core';
import type { Board, FileHash, Page } from '@cuaderno/core';
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { boardJson, goesAlong } from './shape.js';
import type { BoardFileWish, BoardJson } from './shape.js';

/** What a board file is made of, besides the board. */
export interface BoardFileSource {
  /** A stored file. */
  file(hash: FileHash): Promise<{ bytes: Uint8Array; type: string }>;
  /** What a page looks like; there is on it what goes along. */
  svg(page: Page): Promise<string>;
  /** Told how far it is, from 0 to 1. */
  progress?(part: number): void;
}

/** Endings of files, for people and programs that open the zip. */
const ENDINGS: Readonly<Record<string, string>> = {
  'application/pdf': 'pdf',
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'audio/mpeg': 'mp3',
  'audio/wav': 'wav',
  'audio/ogg': 'ogg',
  'audio/mp4': 'm4a',
  'audio/webm': 'webm',
  'audio/flac': 'flac',
  'audio/aac': 'aac',
  'video/mp4': 'mp4',
  'video/webm': 'webm',
  'video/ogg': 'ogv',
};

/** Files that pages are printed with or that lie on them, each once. */
export function filesOfPages(pages: readonly Page[]): FileHash[] {
  return [
    ...new Set(
      pages.flatMap((page) => [
        ...(page.paper.kind === 'pdf' ? [page.paper.file] : []),
        ...itemsOn(page).flatMap((item) => (item.kind === 'ink' ? [] : filesOf(item))),
      ]),
    ),
  ];
}

/** The page with what goes along of what lies on it. */
function pageAlong(page: Page, { ink }: BoardFileWish): Page {
  return { ...page, items: new Map([...page.items].filter(([, item]) => goesAlong(item, ink))) };
}

/**
 * A board as one zip, in pieces: `board.json`, a picture of each page, and the files as they are.
 * See docs/formats.md. Rejects with what `signal` was given up for.
 */
export async function writeBoardFile(
  board: Board,
  wish: BoardFileWish,
  source: BoardFileSource,
  signal?: AbortSignal,
): Promise<Uint8Array[]> {
  const pieces: Uint8Array[] = [];
  let failed: Error | null = null;
  const zip = new Zip((error, piece) => {
    if (error) failed = error;
    else pieces.push(piece);
  });
  const add = (path: string, bytes: Uint8Array, packed: boolean): void => {
    const entry = packed ? new ZipDeflate(path, { level: 6 }) : new ZipPassThrough(path);
    zip.add(entry);
    entry.push(bytes, true);
    if (failed) throw failed;
  };
  const pages = pagesInOrder(board);
  const hashes = filesOfPages(pages);
  let done = 0;
  const step = (): void => {
    signal?.throwIfAborted();
    source.progress?.(++done / (pages.length + hashes.length + 1));
  };
  const files: BoardJson['files'] = [];
  for (const hash of hashes) {
    const { bytes, type } = await source.file(hash);
    const path = `files/${hash}.${ENDINGS[type] ?? 'bin'}`;
    files.push({ hash, type, path });
    // What is packed already isn't packed again.
    add(path, bytes, false);
    step();
  }
  const digits = String(pages.length).length;
  for (const [i, page] of pages.entries()) {
    const number = String(i + 1).padStart(digits, '0');
    add(`pages/${number}.svg`, strToU8(await source.svg(pageAlong(page, wish))), true);
    step();
  }
  add('board.json', strToU8(JSON.stringify(boardJson(board, files, wish))), true);
  step();
  zip.end();
  return pieces;
}
