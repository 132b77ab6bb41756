import type { Id, ServerMessage, View } from '@cuaderno/core';
import { maySee, pack, teaches } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** In step: windows show what that of the one who leads shows, as long as that is wished, or once. */
export class Leading implements LiveFeature<'inStep'> {
  readonly handlers: ClientHandlers<'inStep'> = {
    step: (window, { on }) => this.step(window, on),
    view: (window, { board, view, final }) => this.view(window, board, view, final),
    gather: (window, { board, view }) => this.gather(window, board, view),
    'gather.one': (window, { board, view }, addressee) =>
      this.gatherOne(window, board, view, addressee),
  };

  constructor(private readonly classroom: Classroom) {}

  step({ lesson }: LiveConnection, on: boolean): void {
    if (!lesson) return;
    lesson.view = null;
    this.classroom.keep(this.classroom.lessons.setStep(lesson, on), 'being in step');
    for (const window of this.classroom.windows(lesson)) window.tell({ kind: 'step', on });
  }

  /** On its way a view may be lost on slow lines; the one at rest never is. */
  view(from: LiveConnection, board: Id, view: View, final: boolean): void {
    const { lesson } = from;
    if (!lesson?.inStep || from.person !== lesson.leader) return;
    // A page that students aren't shown leads nowhere: they stay where they were.
    if (!this.isForAll(lesson, board, view)) return;
    lesson.view = { board, view };
    const bytes = pack({ kind: 'view', board, view, once: false } satisfies ServerMessage);
    for (const window of this.classroom.windows(lesson))
      if (window.person !== from.person) {
        if (final) window.send(bytes);
        else window.sendLive(bytes);
      }
  }

  gather(from: LiveConnection, board: Id, view: View): void {
    const { lesson } = from;
    if (!lesson || !this.isForAll(lesson, board, view)) return;
    if (!teaches(from.role) && from.person !== lesson.lead) return;
    for (const window of this.classroom.windows(lesson))
      if (!teaches(window.role) && window.person !== from.person)
        window.tell({ kind: 'view', board, view, once: true });
  }

  /** One student's window is shown this, as by `gather`; windows of those who teach look where they like. */
  private gatherOne({ lesson }: LiveConnection, board: Id, view: View, to: LiveConnection): void {
    if (!lesson || teaches(to.role)) return;
    if (!maySee(to.viewer, this.classroom.audienceOf(lesson, board, view.page))) return;
    to.tell({ kind: 'view', board, view, once: true });
  }

  restore(): void {
    // Whether windows are in step is kept with the lesson.
  }

  /** Someone comes, late or again. */
  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (!lesson) return;
    const { inStep, view } = lesson;
    window.tell({ kind: 'step', on: inStep });
    if (!inStep || !view || window.person === lesson.leader) return;
    if (this.isForAll(lesson, view.board, view.view))
      window.tell({ kind: 'view', ...view, once: false });
  }

  leave(): void {
    // What was led to stays.
  }

  private isForAll(lesson: LiveLesson, board: Id, { page }: View): boolean {
    return this.classroom.audienceOf(lesson, board, page) === 'everyone';
  }
}
