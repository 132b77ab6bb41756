import type { Board } from '@cuaderno/core/board';
import { writeBoardFile } from '@cuaderno/formats/board-file';
import type { BoardFileWish } from '@cuaderno/formats/board-file';
import type { PaperSource } from '../../board/drawing/paper-source';
import { pageAsSvg } from '../../board/page-files/page-svg';

/** A whole board as one file; see docs/formats.md. Rejects with an `AbortError` if given up. */
export async function boardAsFile(
  board: Board,
  papers: PaperSource,
  wish: BoardFileWish,
  signal: AbortSignal,
  progress: (part: number) => void,
): Promise<Blob> {
  const pieces = await writeBoardFile(
    board,
    wish,
    {
      async file(hash) {
        const response = await fetch(`/api/files/${hash}`, { signal });
        if (!response.ok) throw new Error(String(response.status));
        const type = (response.headers.get('content-type') ?? '').replace(/;.*$/, '');
        return { bytes: new Uint8Array(await response.arrayBuffer()), type };
      },
      svg: (page) => pageAsSvg(page, papers, { ink: true, signal }),
      progress,
    },
    signal,
  );
  return new Blob(pieces as BlobPart[], { type: 'application/zip' });
}
