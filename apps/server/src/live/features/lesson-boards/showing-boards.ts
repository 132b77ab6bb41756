import { maySee } from '@cuaderno/core';
import type { Id, LessonBoard } from '@cuaderno/core';
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
  /** Titles of boards, as they were called last. */
  private readonly titles = new Map<Id, string>();

  constructor(private readonly service: LiveService) {}

  async restore(lesson: LiveLesson): Promise<void> {
    await this.learnTitles(lesson);
  }

  sendSnapshot(window: LiveConnection): void {
    if (window.lesson) this.keep(this.learnTitles(window.lesson).then(() => this.tellOne(window)));
  }

  /** The class has another board, or one of them is called something else. */
  tell(lesson: LiveLesson): void {
    this.keep(
      this.learnTitles(lesson).then(() => {
        for (const window of this.service.windows(lesson)) this.tellOne(window);
      }),
    );
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

  private tellOne(window: LiveConnection): void {
    const { lesson } = window;
    if (!lesson) return;
    const all = lesson
      .allBoards()
      .map(({ id, shown }): LessonBoard => ({ id, shown, title: this.titles.get(id) ?? '' }));
    const boards = maySee(window.viewer, 'tutors') ? all : all.filter(({ shown }) => shown);
    window.tell({ kind: 'boards', boards });
  }

  /** An open board knows its title by itself. */
  private async learnTitles(lesson: LiveLesson): Promise<void> {
    for (const { id } of lesson.allBoards()) {
      const open = this.service.boardOf(id)?.title;
      this.titles.set(id, open ?? (await this.service.titleOf(id)));
    }
  }

  private keep(told: Promise<void>): void {
    this.service.keep(told, 'which boards a lesson is on');
  }
}
