import type { Provider } from '@angular/core';
import { BoardDraft, boardOutline, emptyBoard } from '@cuaderno/core/board';
import type { PageSpec } from '@cuaderno/core/board';
import { newId } from '@cuaderno/core/id';
import { apply } from '@cuaderno/core/ops';
import type { Role, Trust } from '@cuaderno/core/permissions';
import { addPages, somePages } from '@cuaderno/core/testing';
import type { BoardSession } from './board-session';
import { LessonLine } from './lesson-line';
import { LessonLines } from './lesson-lines';
import { pretendPerson } from './pretend-person';
import { PretendServer } from './pretend-socket';
import type { PretendSocket } from './pretend-socket';

/** A board of some pages and a lesson on it, as the server would tell them, for specs of screens. */
export class PretendLesson {
  readonly board = newId();
  readonly id = newId();
  readonly me = newId();
  readonly other = newId();
  readonly pages: readonly PageSpec[];
  private readonly server = new PretendServer();

  constructor(pages = 2) {
    this.pages = somePages(pages);
  }

  /** Has screens open their boards here. */
  get provider(): Provider {
    return { provide: LessonLines, useValue: { dial: (path: string) => this.dial(path) } };
  }

  dial(path: string): LessonLine {
    return new LessonLine(path, this.server.dial, (then) => then());
  }

  /** The board that a window begins on. */
  open(path: string): BoardSession {
    return this.dial(path).open(null);
  }

  /** What the screen that was opened last says and hears. */
  get line(): PretendSocket {
    return this.server.line;
  }

  /** Lets the screen in: the board comes, and who is there. */
  welcome(role: Role, { trust = 'view' as Trust, isOpen = true, title = 'Tides' } = {}): void {
    const draft = new BoardDraft({ ...emptyBoard(this.board), title });
    apply(addPages([...this.pages]), draft, { by: this.other, at: 0, lesson: null });
    const first = this.pages[0]!.id;
    this.line.open();
    this.line.say({
      kind: 'welcome',
      now: Date.now(),
      you: this.me,
      window: this.me,
      role,
      lesson: isOpen ? { id: this.id, openedAt: Date.now() } : null,
    });
    this.line.say({
      kind: 'board.opened',
      board: this.board,
      number: 1,
      page: first,
      outline: boardOutline(draft.done(), 1, new Set(this.pages.map(({ id }) => id))),
    });
    if (isOpen) this.line.say({ kind: 'boards', boards: [{ id: this.board, title, shown: true }] });
    if (isOpen) this.trust(role, trust);
  }

  /** What the student who is there, or this window's own, may do. */
  trust(role: Role, trust: Trust): void {
    const [student, tutor] = role === 'tutor' ? [this.other, this.me] : [this.me, this.other];
    this.line.say({
      kind: 'people',
      people: [
        pretendPerson({ id: tutor, name: 'Maren Solheim', role: 'tutor', trust: 'hands' }),
        pretendPerson({
          ...{ id: student, name: 'Ida', trust },
          role: role === 'tutor' ? 'student' : role,
        }),
      ],
    });
  }
}
