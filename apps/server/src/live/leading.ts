import type { Id, ServerMessage, View } from '@cuaderno/core';
import { pack } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { Lessons } from '../lessons/service.js';
import type { LiveConnection } from './connection.js';

/** In step: students' windows show what the tutor's shows, as long as that is wished, or once. */
export class Leading {
  /**
   * @param windows everyone's on a board
   * @param isShown whether students are shown a page
   */
  constructor(
    private readonly lessons: Lessons,
    private readonly windows: (board: Id) => Iterable<LiveConnection>,
    private readonly isShown: (board: Id, page: Id) => boolean,
    private readonly log: FastifyBaseLogger,
  ) {}

  step(from: LiveConnection, on: boolean): void {
    const { lesson } = from;
    if (!lesson) return;
    lesson.view = null;
    this.lessons
      .setStep(lesson, on)
      .catch((error: unknown) => this.log.error({ err: error }, 'being in step was not kept'));
    for (const window of this.windows(from.board)) window.tell({ kind: 'step', on });
  }

  /** On its way a view may be lost on slow lines; the one at rest never is. */
  view(from: LiveConnection, view: View, rest: boolean): void {
    const { lesson, board } = from;
    // A page that students aren't shown leads nowhere: they stay where they were.
    if (!lesson?.inStep || !this.isShown(board, view.page)) return;
    lesson.view = view;
    const bytes = pack({ kind: 'view', view, once: false } satisfies ServerMessage);
    for (const window of this.windows(board))
      if (window.role === 'student') {
        if (rest) window.send(bytes);
        else window.sendLive(bytes);
      }
  }

  gather(from: LiveConnection, view: View): void {
    if (!from.lesson || !this.isShown(from.board, view.page)) return;
    for (const window of this.windows(from.board))
      if (window.role === 'student') window.tell({ kind: 'view', view, once: true });
  }

  /** Someone comes, late or again. */
  greet(window: LiveConnection): void {
    const { lesson, board } = window;
    if (!lesson) return;
    const { inStep, view } = lesson;
    window.tell({ kind: 'step', on: inStep });
    if (inStep && view && window.role === 'student' && this.isShown(board, view.page))
      window.tell({ kind: 'view', view, once: false });
  }
}
