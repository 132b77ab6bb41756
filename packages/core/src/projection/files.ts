import type { Board, Page, PdfPaper } from '../board/index.js';
import type { FileHash, Id } from '../id/index.js';
import { filesOf } from '../material/index.js';
import { isHeld } from './board-for.js';

/**
 * Files that students of a board may have: those of pages, pictures, sounds and films that they
 * are shown. A file of which any page is held back isn't one of them, whatever else is in it.
 */
export function filesForStudents(board: Board): ReadonlySet<FileHash> {
  const shown = new Set<FileHash>();
  const kept = new Set<FileHash>();
  for (const page of board.pages.values()) {
    if (page.paper.kind === 'pdf') (page.held ? kept : shown).add(page.paper.file);
    if (page.held) continue;
    for (const item of page.items.values())
      if (item.kind !== 'ink' && !item.removed && !isHeld(item))
        for (const file of filesOf(item)) shown.add(file);
  }
  for (const file of kept) shown.delete(file);
  return shown;
}

/** A page that is printed with a page of a file. */
export interface PrintedPage {
  readonly id: Id;
  readonly paper: PdfPaper;
  readonly held: boolean;
}

/**
 * Pages of files of which some are held back and others are not: those have to be taken apart, or
 * students could not be sent the ones they are shown.
 */
export function mixedFiles(board: Board): ReadonlyMap<FileHash, readonly PrintedPage[]> {
  const files = new Map<FileHash, PrintedPage[]>();
  for (const page of board.pages.values()) {
    const printed = printedPage(page);
    if (!printed) continue;
    const { file } = printed.paper;
    files.set(file, [...(files.get(file) ?? []), printed]);
  }
  for (const [file, pages] of files)
    if (new Set(pages.map(({ held }) => held)).size < 2) files.delete(file);
  return files;
}

function printedPage({ id, paper, held = false }: Page): PrintedPage | null {
  return paper.kind === 'pdf' ? { id, paper, held } : null;
}
