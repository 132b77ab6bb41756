import { maySee } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import { ProblemError } from '../../../problems/index.js';
import type { LiveConnection } from '../../connection.js';
import type { LiveService } from '../../service.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** Which boards the class has in a lesson. */
export class ShowingBoards implements LiveFeature<'lessonBoards'> {
  readonly handlers: ClientHandlers<'lessonBoards'> = {
    'board.show': (window, { board }) =>
      this.change(window, (lesson) => this.service.showBoard(lesson, board)),
    'board.withdraw': (window, { board }) =>
      this.change(window, (lesson) => this.service.withdrawBoard(lesson, board)),
  };

  constructor(private readonly service: LiveService) {}

  restore(): void {
    // They are kept with the lesson.
  }

  sendSnapshot(window: LiveConnection): void {
    if (window.lesson) this.tellOne(window, window.lesson);
  }

  leave(): void {
    // The class has them all the same.
  }

  /** The class has another board, or one of them is called something else. */
  tell(lesson: LiveLesson): void {
    for (const window of this.service.windows(lesson)) this.tellOne(window, lesson);
  }

  private change(window: LiveConnection, what: (lesson: LiveLesson) => Promise<void>): void {
    const { lesson } = window;
    if (!lesson) return;
    what(lesson).then(
      () => this.tell(lesson),
      (error: unknown) => {
        if (error instanceof ProblemError) window.refuse(error.code);
        else window.failed(error);
      },
    );
  }

  private tellOne(window: LiveConnection, lesson: LiveLesson): void {
    const all = lesson.allBoards();
    const boards = maySee(window.viewer, 'tutors') ? all : all.filter(({ shown }) => shown);
    window.tell({ kind: 'boards', boards });
  }
}
