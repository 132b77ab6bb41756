import type { ServerMessage, View } from '@cuaderno/core';
import { maySee, pack } from '@cuaderno/core';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** In step: windows show what that of the one who leads shows, as long as that is wished, or once. */
export class Leading implements LiveFeature<'inStep'> {
  readonly handlers: ClientHandlers<'inStep'> = {
    step: (window, { on }) => this.step(window, on),
    view: (window, { view, final }) => this.view(window, view, final),
    gather: (window, { view }) => this.gather(window, view),
    'gather.one': (window, { view }, addressee) => this.gatherOne(window, view, addressee),
  };

  constructor(private readonly classroom: Classroom) {}

  step(from: LiveConnection, on: boolean): void {
    const { lesson } = from;
    if (!lesson) return;
    lesson.view = null;
    this.classroom.keep(this.classroom.lessons.setStep(lesson, on), 'being in step');
    for (const window of this.classroom.windows(from.board)) window.tell({ kind: 'step', on });
  }

  /** On its way a view may be lost on slow lines; the one at rest never is. */
  view(from: LiveConnection, view: View, final: boolean): void {
    const { lesson, board } = from;
    // A page that students aren't shown leads nowhere: they stay where they were.
    if (
      !lesson?.inStep ||
      from.person !== lesson.leader ||
      this.classroom.audienceOf(board, view.page) !== 'everyone'
    )
      return;
    lesson.view = view;
    const bytes = pack({ kind: 'view', view, once: false } satisfies ServerMessage);
    for (const window of this.classroom.windows(board))
      if (window.person !== from.person) {
        if (final) window.send(bytes);
        else window.sendLive(bytes);
      }
  }

  gather(from: LiveConnection, view: View): void {
    const { lesson } = from;
    if (!lesson || this.classroom.audienceOf(from.board, view.page) !== 'everyone') return;
    if (from.role !== 'tutor' && from.person !== lesson.lead) return;
    for (const window of this.classroom.windows(from.board))
      if (window.role === 'student' && window.person !== from.person)
        window.tell({ kind: 'view', view, once: true });
  }

  /** One student's window is shown this, as by `gather`; windows of tutors look where they like. */
  private gatherOne(from: LiveConnection, view: View, window: LiveConnection): void {
    if (!maySee(window.viewer, this.classroom.audienceOf(from.board, view.page))) return;
    if (window.role === 'student') window.tell({ kind: 'view', view, once: true });
  }

  restore(): void {
    // Whether windows are in step is kept with the lesson.
  }

  /** Someone comes, late or again. */
  sendSnapshot(window: LiveConnection): void {
    const { lesson, board } = window;
    if (!lesson) return;
    const { inStep, view } = lesson;
    window.tell({ kind: 'step', on: inStep });
    if (
      inStep &&
      view &&
      window.person !== lesson.leader &&
      this.classroom.audienceOf(board, view.page) === 'everyone'
    )
      window.tell({ kind: 'view', view, once: false });
  }
}
