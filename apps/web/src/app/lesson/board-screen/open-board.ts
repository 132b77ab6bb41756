import type { BoardWriter } from '@cuaderno/contract/board-writer';
import type { Id } from '@cuaderno/core/id';
import { changePage } from '@cuaderno/core/ops';
import { nameOf } from '@cuaderno/core/people';
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { AccountsApi } from '../../api/accounts-api';
import { Attempt } from '../../api/attempt';
import { BoardsApi } from '../../api/boards-api';
import { CoursesApi } from '../../api/courses-api';
import { LessonsApi } from '../../api/lessons-api';
import type { BoardInfo, Course } from '../../api/shapes';
import type { BoardSession } from '../../live/board-session';
import { BoardSessions } from '../../live/board-sessions';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import type { MayWord } from '../people/permissions-panel';

type CourseOfBoard = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode' | 'lesson' | 'rules'>;

/**
 * The board that a tutor's screen has open: its line to the server, its course, the lesson on it, who wrote on it, and
 * what came late. Provided by that screen; it goes with it.
 */
@Injectable()
export class OpenBoard {
  private readonly accountsApi = inject(AccountsApi);
  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly sessions = inject(BoardSessions);
  private readonly waitingLate = inject(WaitingLateLines);
  private readonly id = signal<Id>('');
  private readonly info = signal<BoardInfo | null>(null);

  readonly session = signal<BoardSession | null>(null);
  readonly course = signal<CourseOfBoard | null>(null);
  /** Who wrote on it, in whatever lesson, as far as it is known. */
  readonly writers = signal<readonly BoardWriter[]>([]);
  readonly attempt = new Attempt();

  readonly title = computed(() => this.session()?.board().title || this.info()?.title || '');
  /** The lesson that is open on it. */
  readonly lesson = computed(() => this.session()?.lesson() ?? null);
  /** A lesson of this course that is open on another of its boards. */
  readonly elsewhere = computed(() => {
    const lesson = this.course()?.lesson;
    return lesson && lesson.board !== this.id() && !this.lesson() ? lesson : null;
  });
  /** How many are at the door and wait for an answer. */
  readonly knocking = computed(
    () =>
      this.session()
        ?.features.door.arrivals()
        .filter(({ state }) => state === 'waiting').length ?? 0,
  );
  /** Late lines that wait to be looked at and would lie on this board. */
  readonly late = computed(() =>
    this.waitingLate.list().filter(({ board }) => board === this.id()),
  );
  readonly lateCount = computed(() => this.late().reduce((sum, { count }) => sum + count, 0));
  /** All who wrote on it, where somebody did besides its tutor. */
  readonly others = computed(() => {
    const all = this.writers();
    return all.some(({ role }) => role === 'student')
      ? all.map((one) => ({ id: one.id, label: nameOf(one) }))
      : [];
  });

  constructor() {
    effect(() => {
      // The line was ended since nobody is signed in: anyone who signs in again goes on with what is here.
      const session = this.session();
      if (session?.line() !== 'not-in') return;
      void firstValueFrom(this.accountsApi.readAccount()).then(
        () => session.comeBack(),
        () => undefined,
      );
    });
    effect(() => {
      const [board, ready, lesson] = [this.id(), this.session()?.ready(), this.lesson()?.id];
      // What was written in a lesson is known when it is over.
      if (ready) untracked(() => void this.loadWriters(board, lesson));
    });
    effect(() => {
      // Also when the line is back: what was said meanwhile was missed.
      const session = this.session();
      if (session?.line() !== 'live') return;
      session.features.invalidation.late();
      untracked(() => void this.waitingLate.load());
    });
    inject(DestroyRef).onDestroy(() => this.session()?.close());
  }

  /** Opens a board, in place of another. */
  open(board: Id): void {
    this.session()?.close();
    this.id.set(board);
    this.info.set(null);
    this.writers.set([]);
    this.session.set(this.sessions.open(`/live/boards/${board}`));
    void this.load();
  }

  async load(): Promise<void> {
    await this.attempt.make(async () => {
      const id = this.id();
      const { board, course } = await firstValueFrom(this.boardsApi.readBoard(id));
      // Another may have been opened meanwhile.
      if (id !== this.id()) return;
      this.info.set(board);
      this.course.set(course);
    });
  }

  rename(title: string): void {
    this.session()?.do({ kind: 'board.rename', title, former: this.title() });
  }

  async openLesson(): Promise<void> {
    await this.attempt.make(async () => {
      await firstValueFrom(this.lessonsApi.openLesson(this.id()));
    });
  }

  /** Resolves with the lesson that was closed; with `null` where that couldn't be done. */
  async closeLesson(): Promise<Id | null> {
    const lesson = this.lesson();
    if (!lesson) return null;
    const closed = await this.attempt.make(async () => {
      await firstValueFrom(this.lessonsApi.closeLesson(lesson.id));
    });
    return closed ? lesson.id : null;
  }

  /**
   * Says what may be done, where it is said.
   *
   * @param page the page in view
   */
  changePermissions(word: MayWord, page: Id | null): void {
    const session = this.session();
    if (!session) return;
    switch (word.kind) {
      case 'trust':
        return session.features.pens.setTrust(word.who, word.trust);
      case 'rules':
        return session.features.pens.setRules(word.who, word.over);
      case 'board':
        return session.do({ kind: 'board.rules', to: word.rules, from: session.board().rules });
      case 'page': {
        const change = changePage(session.board(), page ?? '', { rules: word.rules });
        if (change) session.do(change);
        return;
      }
      case 'course':
        void this.attempt.make(async () => {
          const course = this.course();
          if (!course) return;
          await firstValueFrom(this.coursesApi.setCourseRules(course.id, word.rules));
          this.course.set({ ...course, rules: word.rules });
        });
    }
  }

  /** Names beside ink: nothing waits for them. */
  private async loadWriters(board: Id, lesson: Id | undefined): Promise<void> {
    try {
      const { writers } = await firstValueFrom(this.boardsApi.listBoardWriters(board));
      if (board === this.id() && lesson === this.lesson()?.id) this.writers.set(writers);
    } catch {
      // They are asked for again with the next lesson.
    }
  }
}
