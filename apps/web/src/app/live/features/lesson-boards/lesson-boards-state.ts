import { computed, signal } from '@angular/core';
import type { LessonBoard } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
import type { LessonFeature, ServerHandlers, Stand } from '../feature';

/** The boards that the lesson is on. */
export class LessonBoardsState implements LessonFeature<'lessonBoards'> {
  /** In the order in which they came; a tutor is also told of those that the class hasn't any more. */
  readonly boards = signal<readonly LessonBoard[]>([]);
  /** Those that the class has. */
  readonly shown = computed(() => this.boards().filter(({ shown }) => shown));

  readonly handlers: ServerHandlers<'lessonBoards'> = {
    boards: ({ boards }) => this.boards.set(boards),
  };

  constructor(private readonly stand: Stand) {}

  begin(): void {
    // It is told anew.
  }

  clear(): void {
    this.boards.set([]);
  }

  leave(): void {
    // It has nothing of the machine.
  }

  /** Whether the class has a board. */
  isShown(board: Id): boolean {
    return this.shown().some(({ id }) => id === board);
  }

  /** The class has it from now on. */
  show(board: Id): void {
    this.stand({ kind: 'board.show', board }, () => this.isShown(board));
  }

  withdraw(board: Id): void {
    this.stand({ kind: 'board.withdraw', board }, () => !this.isShown(board));
  }
}
