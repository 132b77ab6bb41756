import { maySee } from '@cuaderno/core';
import type { Audience, ClientMessage, Id, Machine } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** What a window shows. */
type Shown = Extract<ClientMessage, { kind: 'window' }>;

/** Where everyone is, what their windows show, and how well their line goes. */
export class Presence implements LiveFeature<'presence'> {
  readonly handlers: ClientHandlers<'presence'> = {
    'page.viewed': (window, { board, page }) => this.viewed(window, board, page),
    window: (window, message) => this.shows(window, message),
  };

  /** What each window is on, as it said itself. */
  private readonly machines = new WeakMap<LiveConnection, Machine>();

  constructor(private readonly classroom: Classroom) {}

  restore(): void {
    // Windows say what they show as they come back.
  }

  /** Who is there is told to all whenever somebody comes. */
  sendSnapshot(): void {
    // See above.
  }

  leave({ lesson }: LiveConnection): void {
    if (lesson) this.tellWindows(lesson);
  }

  /** How long a word takes to a window and back, in ms. */
  measured(window: LiveConnection, ms: number): void {
    const { lesson } = window;
    const person = lesson?.person(window.person);
    if (!lesson || !person || person.role === 'tutor') return;
    person.roundTrip = ms;
    this.classroom.tellPeople(lesson, 'tutors');
  }

  /** A window came or went, or has said what it is on. */
  tellWindows(lesson: LiveLesson, audience: Audience = 'everyone'): void {
    const here = [...this.classroom.windows(lesson)];
    for (const window of this.classroom.windowsFor(lesson, audience)) {
      const tells = maySee(window.viewer, 'tutors');
      window.tell({
        kind: 'windows',
        windows: here.map((one) => ({
          id: one.id,
          person: one.person,
          machine: tells ? (this.machines.get(one) ?? null) : null,
        })),
      });
    }
  }

  private viewed(window: LiveConnection, board: Id, page: Id): void {
    const { lesson } = window;
    const person = lesson?.person(window.person);
    if (!lesson || !person || !window.boards.has(board)) return;
    if (person.board === board && person.page === page) return;
    person.board = board;
    person.page = page;
    // What its tutor looks at besides the boards of the lesson is no part of it.
    if (lesson.isOn(board))
      this.classroom.lessons.turns.note(lesson.id, person.id, { board, page });
    // Where the one who leads is, everyone may know: who can't turn pages alone goes there.
    this.classroom.tellPeople(lesson, person.id === lesson.leader ? 'everyone' : 'tutors');
  }

  private shows(window: LiveConnection, { board, machine, size, view }: Shown): void {
    const { lesson } = window;
    const person = lesson?.person(window.person);
    if (!lesson || !person || !window.boards.has(board)) return;
    person.machine = machine;
    if (this.machines.get(window) !== machine) {
      this.machines.set(window, machine);
      this.tellWindows(lesson, 'tutors');
    }
    person.board = board;
    person.view = view;
    person.size = size;
    this.classroom.tellPeople(lesson, 'tutors');
  }
}
