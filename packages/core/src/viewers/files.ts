import type { Board, Page, PdfPaper } from '../board/index.js';
import type { FileHash, Id } from '../id/index.js';
import { filesOf } from '../kinds/index.js';
import { isHidden } from './board-for.js';

/**
 * Whether students may have the file that a page is printed from. A page that was taken out while the lesson was on
 * stays on their machines anyway: the file is not taken apart for it before the next one.
 * @param since when the lesson was opened that is on, in ms since 1970; `Infinity` where none is
 */
function isPrintedFor({ hidden, removed }: Page, since: number): boolean {
  return !hidden && (!removed || removed.at >= since);
}

/**
 * Files that students of a board may have: those of pages, pictures, sounds and films that they
 * are shown. A file of which any page is hidden or was taken out isn't one of them, whatever else is in it.
 * @param since as above
 */
export function filesForStudents(board: Board, since: number): ReadonlySet<FileHash> {
  const shown = new Set<FileHash>();
  const kept = new Set<FileHash>();
  for (const page of board.pages.values()) {
    if (page.paper.kind === 'pdf') (isPrintedFor(page, since) ? shown : kept).add(page.paper.file);
    if (page.hidden || page.removed) continue;
    for (const item of page.items.values())
      if (item.kind !== 'ink' && !item.removed && !isHidden(item))
        for (const file of filesOf(item)) shown.add(file);
  }
  for (const file of kept) shown.delete(file);
  return shown;
}

/** A page that is printed with a page of a file. */
export interface PrintedPage {
  readonly id: Id;
  readonly paper: PdfPaper;
  /** Whether students may not have it. */
  readonly kept: boolean;
}

/**
 * Pages of files of which some are for students and others are not: those have to be taken apart, or
 * students could not be sent the ones they are shown.
 * @param since as above
 */
export function mixedFiles(
  board: Board,
  since: number,
): ReadonlyMap<FileHash, readonly PrintedPage[]> {
  const files = new Map<FileHash, PrintedPage[]>();
  for (const page of board.pages.values()) {
    const { id, paper } = page;
    if (paper.kind !== 'pdf') continue;
    const printed = { id, paper, kept: !isPrintedFor(page, since) };
    files.set(paper.file, [...(files.get(paper.file) ?? []), printed]);
  }
  for (const [file, pages] of files)
    if (new Set(pages.map(({ kept }) => kept)).size < 2) files.delete(file);
  return files;
}
