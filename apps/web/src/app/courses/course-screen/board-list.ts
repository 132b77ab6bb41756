import { CdkDrag, CdkDropList } from '@angular/cdk/drag-drop';
import type { CdkDragDrop } from '@angular/cdk/drag-drop';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  model,
  signal,
  viewChild,
} from '@angular/core';
import type { ElementRef } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Ellipsis } from 'lucide';
import type { MenuItem } from 'primeng/api';
import { Menu, MenuModule } from 'primeng/menu';
import { firstValueFrom } from 'rxjs';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { problemOf } from '../../api/problem';
import type { ProblemDetails } from '../../api/problem';
import type { BoardInfo } from '../../api/shapes';
import { CopyDialog } from '../../board/copying/copy-dialog';
import type { CopySource } from '../../board/copying/copy-dialog';
import { Button } from '../../ui/button/button';
import { Icon } from '../../ui/icons/icon';
import { LocalFiles } from '../../board/drawing/local-files';
import { PaperSource } from '../../board/drawing/paper-source';
import { formatDate } from '../../ui/time/format-time';
import { BoardCover } from '../../board/pages/board-cover';
import { ProblemMessage } from '../../ui/problem/problem-message';
import { EmptyState } from '../../ui/empty/empty-state';

/** The boards of a course: to open, and to put in order. */
@Component({
  selector: 'cua-board-list',
  imports: [
    BoardCover,
    Button,
    CdkDrag,
    CdkDropList,
    CopyDialog,
    Icon,
    MenuModule,
    ProblemMessage,
    RouterLink,
    EmptyState,
  ],
  templateUrl: './board-list.html',
  styleUrl: './board-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BoardList {
  readonly boards = model.required<readonly BoardInfo[]>();
  /** Those that can be brought back. */
  readonly takenOut = model.required<readonly BoardInfo[]>();
  /** The board on which a lesson is open. */
  readonly inLesson = input<string | null>(null);

  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly menu = viewChild.required(Menu);
  protected readonly papers = new PaperSource(inject(LocalFiles));
  protected readonly icons = { Ellipsis };
  protected readonly say = { date: formatDate };
  protected readonly problem = signal<ProblemDetails | null>(null);
  /** The board whose menu is open. */
  private readonly chosen = signal<BoardInfo | null>(null);
  protected readonly naming = signal<string | null>(null);
  protected readonly copying = signal<BoardInfo | null>(null);
  protected readonly copySource = computed<CopySource | null>(() => {
    const board = this.copying();
    return (
      board && {
        of: { board: board.id },
        title: `${board.title}, copy`,
        course: board.course,
        header: 'Copy this board',
        lessonInk: false,
      }
    );
  });
  /** Taken out just now, until that is read. */
  protected readonly gone = signal<BoardInfo | null>(null);

  protected readonly wishes = computed<MenuItem[]>(() => {
    const board = this.chosen();
    if (!board) return [];
    const boards = this.boards();
    const at = boards.findIndex(({ id }) => id === board.id);
    const to = (index: number) => () => void this.move(board, index);
    return [
      { label: 'Rename', command: () => this.naming.set(board.id) },
      { label: 'Copy it…', command: () => this.copying.set(board) },
      { label: 'Move up', disabled: at <= 0, command: to(at - 1) },
      { label: 'Move down', disabled: at >= boards.length - 1, command: to(at + 1) },
      {
        label: 'Remove',
        disabled: this.inLesson() === board.id,
        command: () => void this.remove(board),
      },
    ];
  });

  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('title');

  constructor() {
    effect(() => this.nameField()?.nativeElement.select());
    inject(DestroyRef).onDestroy(() => this.papers.close());
  }

  /** Counts moves. */
  private moves = 0;

  protected open(event: Event, board: BoardInfo): void {
    this.chosen.set(board);
    this.menu().toggle(event);
  }

  protected dropped({ item, currentIndex }: CdkDragDrop<unknown, unknown, BoardInfo>): void {
    void this.move(item.data, currentIndex);
  }

  protected nudge(event: Event, board: BoardInfo, to: number): void {
    event.preventDefault();
    void this.move(board, to);
  }

  protected async name(board: BoardInfo, title: string): Promise<void> {
    // Leaving the field after Enter says it twice.
    if (this.naming() !== board.id) return;
    this.naming.set(null);
    if (title.trim() === '' || title === board.title) return;
    await this.try(async () => {
      const named = await firstValueFrom(this.boardsApi.renameBoard(board.id, { title }));
      this.boards.update((list) => list.map((b) => (b.id === board.id ? named : b)));
    });
  }

  protected copied(copy: BoardInfo, of: BoardInfo): void {
    this.copying.set(null);
    if (copy.course === of.course) this.boards.update((list) => [copy, ...list]);
  }

  protected async bringBack(board: BoardInfo): Promise<void> {
    await this.try(async () => {
      await firstValueFrom(this.boardsApi.restoreBoard(board.id));
      this.takenOut.update((list) => list.filter(({ id }) => id !== board.id));
      this.boards.update((list) => [...list, board]);
      if (this.gone()?.id === board.id) this.gone.set(null);
      const { boards } = await firstValueFrom(this.coursesApi.readCourse(board.course));
      this.boards.set(boards);
    });
  }

  private async remove(board: BoardInfo): Promise<void> {
    await this.try(async () => {
      await firstValueFrom(this.boardsApi.removeBoard(board.id));
      this.boards.update((list) => list.filter(({ id }) => id !== board.id));
      this.takenOut.update((list) => [board, ...list]);
      this.gone.set(board);
    });
  }

  /** Puts a board at place `to`, counted from 0 without it. It is seen there at once. */
  private async move(board: BoardInfo, to: number): Promise<void> {
    const before = this.boards();
    const others = before.filter(({ id }) => id !== board.id);
    if (to < 0 || to > others.length || before[to]?.id === board.id) return;
    this.boards.set([...others.slice(0, to), board, ...others.slice(to)]);
    const turn = ++this.moves;
    await this.try(async () => {
      const next = others[to]?.id ?? null;
      const placed = await firstValueFrom(this.boardsApi.placeBoard(board.id, { before: next }));
      // What came of a move is out of date where another was made meanwhile.
      if (turn === this.moves) this.boards.set(placed);
    }, before);
  }

  /** @param otherwise how the boards stood, to go back to where the server can't do it */
  private async try(what: () => Promise<void>, otherwise?: readonly BoardInfo[]): Promise<void> {
    this.problem.set(null);
    try {
      await what();
    } catch (error) {
      this.problem.set(problemOf(error));
      if (otherwise) this.boards.set(otherwise);
    }
  }
}
