import { computed, signal } from '@angular/core';
import { pageNumbers, pagesInOrder } from '@cuaderno/core/board';
import {
  addPageBeside,
  copyPages,
  setPageProps,
  movePages,
  removePages,
} from '@cuaderno/core/edits';
import type { Board, Page } from '@cuaderno/core/board';
import type { PageEdit } from '@cuaderno/core/edits';
import type { Id } from '@cuaderno/core/id';
import type { RichText } from '@cuaderno/core/text';
import type { BoardInfo } from '../../api/shapes';
import type { BoardSession } from '../../live/board-session';
import type { PageSetup } from '../../board/pages/page-dialog';
import type { PageWish } from '../../board/pages/page-strip';

/** What the board's screen has, at the moment. */
export interface PageActionsContext {
  session(): BoardSession | null;
  /** The page in view. */
  page(): Id | null;
  goTo(page: Id): void;
}

/** What was done to pages, until it is read. */
type Notice =
  | { readonly kind: 'removed'; readonly pages: readonly Id[]; readonly words: string }
  | { readonly kind: 'moved'; readonly to: BoardInfo; readonly words: string };

/** What a tutor does with the pages of a board: with those that are picked, or the one in view. */
export class PageActions {
  /** Pages picked in the strip, to do something with all of them. */
  readonly picked = signal<ReadonlySet<Id>>(new Set());
  /** Pages whose name and paper are being chosen. */
  readonly settingUp = signal<readonly Page[]>([]);
  /** Pages for which another board is being chosen. */
  readonly moving = signal<readonly Id[]>([]);
  private readonly told = signal<Notice | null>(null);

  private readonly board = computed<Board | null>(
    () => this.pageActions.session()?.board() ?? null,
  );
  readonly numbers = computed(() => {
    const board = this.board();
    return board ? pageNumbers(board) : new Map<Id, string>();
  });
  /** The page in view. */
  readonly page = computed(() => this.board()?.pages.get(this.pageActions.page() ?? '') ?? null);
  /** What to say; nothing once the pages have come back by undo. */
  readonly notice = computed(() => {
    const told = this.told();
    if (told?.kind !== 'removed') return told;
    const pages = this.board()?.pages;
    return told.pages.some((id) => pages?.get(id)?.removed) ? told : null;
  });

  constructor(private readonly pageActions: PageActionsContext) {}

  edit(wish: PageWish): void {
    const board = this.board();
    if (!board) return;
    if (wish === 'add') return this.make(addPageBeside(board, this.pageActions.page(), 'after'));
    if (wish === 'add before')
      return this.make(addPageBeside(board, this.pageActions.page(), 'before'));
    const pages = this.meant(board);
    if (pages.length === 0) return;
    switch (wish) {
      case 'copy':
        return this.copy(pages);
      case 'set up':
        return this.settingUp.set(drawnFirst(pages.flatMap((id) => board.pages.get(id) ?? [])));
      case 'move':
        return this.moving.set(pages);
      case 'hide':
      case 'show':
        return this.hide(board, pages, wish === 'hide');
      case 'remove':
        return this.remove(board, pages);
    }
  }

  /** Brings a page to place `to`; if it is one of those that are picked, all of them. */
  move(page: Id, to: number): void {
    const board = this.board();
    if (!board) return;
    const together = this.picked().has(page) ? this.meant(board) : [page];
    // The place was counted without the page that was dragged, but with the others.
    const others = pagesInOrder(board).filter(({ id }) => id !== page);
    const before = others.slice(0, to).filter(({ id }) => together.includes(id)).length;
    this.make(movePages(board, together, to - before), false);
  }

  setUp(setup: PageSetup): void {
    const board = this.board();
    const pages = this.settingUp();
    this.settingUp.set([]);
    if (!board) return;
    const { forNew, ...to } = setup;
    const edit = setPageProps(
      board,
      pages.map(({ id }) => id),
      to,
    );
    const { paper, width, height } = to;
    const sheet =
      forNew && paper && paper.kind !== 'pdf' && width && height ? { paper, width, height } : null;
    const from = board.sheet;
    if (!sheet) return this.make(edit, false);
    const changes = [...(edit?.changes ?? []), { kind: 'board.sheet', to: sheet, from } as const];
    this.make({ changes, show: edit?.show ?? pages[0]!.id }, false);
  }

  note(page: Id, privateNotes: RichText): void {
    const board = this.board();
    const edit = board && setPageProps(board, [page], { privateNotes });
    if (edit) this.pageActions.session()?.doAll(edit.changes);
  }

  bringBack(): void {
    const notice = this.told();
    if (notice?.kind !== 'removed') return;
    const pages = [...notice.pages];
    this.make({ changes: [{ kind: 'pages.restore', pages }], show: pages[0]! });
  }

  moved(count: number, to: BoardInfo): void {
    this.moving.set([]);
    this.picked.set(new Set());
    const words = count === 1 ? 'The page is on' : `${count} pages are on`;
    this.told.set({ kind: 'moved', to, words });
  }

  dismiss(): void {
    this.told.set(null);
  }

  /** Those that are picked, in their order; else the one in view. */
  private meant(board: Board): Id[] {
    const picked = this.picked();
    const page = this.pageActions.page();
    if (picked.size === 0) return page ? [page] : [];
    return pagesInOrder(board).flatMap(({ id }) => (picked.has(id) ? [id] : []));
  }

  /** What is on a page is copied when all of it is here. */
  private copy(pages: readonly Id[]): void {
    this.pageActions.session()?.whenHere(pages, () => {
      const board = this.board();
      if (board) this.make(copyPages(board, pages));
    });
  }

  private hide(board: Board, pages: readonly Id[], hidden: boolean): void {
    this.make(setPageProps(board, pages, { hidden }), false);
  }

  private remove(board: Board, pages: readonly Id[]): void {
    const number = this.numbers().get(pages[0]!);
    const edit = removePages(board, pages);
    this.make(edit);
    if (!edit) return;
    this.picked.set(new Set());
    const words =
      pages.length === 1 ? `Page ${number} was removed.` : `${pages.length} pages were removed.`;
    this.told.set({ kind: 'removed', pages, words });
  }

  /** Makes all changes of one edit, which are one step to undo. */
  private make(edit: PageEdit | null, show = true): void {
    this.told.set(null);
    if (!edit) return;
    this.pageActions.session()?.doAll(edit.changes);
    if (show) this.pageActions.goTo(edit.show);
  }
}

/** Papers are chosen for those that can have another; imported pages take its tint. */
function drawnFirst(pages: readonly Page[]): Page[] {
  const imported = ({ paper }: Page): number => (paper.kind === 'pdf' ? 1 : 0);
  return [...pages].sort((a, b) => imported(a) - imported(b));
}
