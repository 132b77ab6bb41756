import type { BoardWriter } from '@cuaderno/contract/board-writer';
import { pagesInOrder } from '@cuaderno/core/board';
import type { Page } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';
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
import type { LessonLine, LineState } from '../../live/lesson-line';
import { LessonLines } from '../../live/lesson-lines';
import { WaitingLateLines } from '../../records/late-lines/waiting-late-lines';
import { boardsElsewhere } from '../boards/elsewhere';
import type { MayWord } from '../people/permissions-panel';
import { sayPermissions } from '../people/say-permissions';

/** The line is there, or comes back by itself. */
const GOES_ON: readonly LineState[] = ['joining', 'live', 'away'];

type CourseOfBoard = Pick<Course, 'id' | 'name' | 'linkToken' | 'joinCode' | 'lesson' | 'rules'>;

/**
 * The board that a tutor's screen has open: the line to the server, its course, the lesson of that, who wrote on it, and
 * what came late. Another board of the course comes over the same line, and the one before stays in sight until it is
 * there. Provided by that screen; it goes with it.
 */
@Injectable()
export class OpenBoard {
  private readonly accountsApi = inject(AccountsApi);
  private readonly boardsApi = inject(BoardsApi);
  private readonly coursesApi = inject(CoursesApi);
  private readonly lessonsApi = inject(LessonsApi);
  private readonly lines = inject(LessonLines);
  private readonly waitingLate = inject(WaitingLateLines);
  /** The board that is wanted; for a moment another may still be in sight. */
  private readonly id = signal<Id>('');
  private readonly line = signal<LessonLine | null>(null);
  private readonly coming = signal<BoardSession | null>(null);
  private readonly info = signal<BoardInfo | null>(null);

  readonly session = signal<BoardSession | null>(null);
  readonly course = signal<CourseOfBoard | null>(null);
  /** Who wrote on it, in whatever lesson, as far as it is known. */
  readonly writers = signal<readonly BoardWriter[]>([]);
  readonly attempt = new Attempt();

  readonly title = computed(() => this.session()?.board().title || this.info()?.title || '');
  /** The lesson of its course that is open. */
  readonly lesson = computed(() => this.session()?.lesson() ?? null);
  /** Boards that are open here, by their ids. */
  readonly boards = computed<ReadonlyMap<Id, BoardSession>>(
    () => this.line()?.boards() ?? new Map<Id, BoardSession>(),
  );
  /** Whether the class has the board that is in sight. */
  readonly isShown = computed(() => {
    const session = this.session();
    return session !== null && session.features.lessonBoards.isShown(session.id() ?? '');
  });
  /** How many are at the door and wait for an answer. */
  readonly knocking = computed(() => this.session()?.features.door.waiting().length ?? 0);
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
        () => this.line()?.comeBack(),
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
    effect(() => {
      // Where students are, this window sees them write.
      const session = this.session();
      const boards = session?.lesson() ? boardsElsewhere(session) : [];
      untracked(() => {
        for (const board of boards) this.line()?.openBehind(board);
      });
    });
    effect(() => {
      const coming = this.coming();
      if (!coming || coming === this.session()) return;
      if (coming.ready())
        untracked(() => {
          this.leadTo(coming);
          this.session.set(coming);
        });
      // It is of another course, or was removed: that is found out on a line of its own.
      else if (coming.closed()) untracked(() => this.dial(this.id()));
    });
    inject(DestroyRef).onDestroy(() => this.line()?.close());
  }

  /**
   * Opens a board, in place of another.
   * @param page to begin at, where the window hasn't been on the board yet
   */
  open(board: Id, page?: Id): void {
    this.id.set(board);
    this.info.set(null);
    this.writers.set([]);
    const line = this.line();
    // While the connection is lost the board in sight stays there until the other has come.
    if (!line || !GOES_ON.includes(line.line())) this.dial(board);
    else {
      line.leadTo(pathOf(board));
      this.coming.set(line.open(board));
    }
    const session = this.coming();
    if (page && session) session.wishedPage = page;
    void this.load();
  }

  /** The class has a board from now on. */
  show(board: Id): void {
    this.session()?.features.lessonBoards.show(board);
  }

  /** Who is in step goes along while this window draws the board, and not after it. */
  private leadTo(session: BoardSession): void {
    const { inStep, pens } = session.features;
    if (!session.lesson() || !inStep.on() || pens.lead() !== null) return;
    const board = session.board();
    const page = board.pages.get(session.startPage() ?? '') ?? pagesInOrder(board)[0];
    const view = session.place() ?? (page && wholeOf(page));
    if (view) inStep.sendView(board.id, view, false);
  }

  private dial(board: Id): void {
    this.line()?.close();
    const line = this.lines.dial(pathOf(board));
    const session = line.open(board);
    this.line.set(line);
    this.coming.set(session);
    this.session.set(session);
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
    if (word.kind !== 'course') return sayPermissions(session, word, page);
    void this.attempt.make(async () => {
      const course = this.course();
      if (!course) return;
      await firstValueFrom(this.coursesApi.setCourseRules(course.id, word.rules));
      this.course.set({ ...course, rules: word.rules });
    });
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

function wholeOf({ id, width, height }: Page): View {
  return { page: id, x: 0, y: 0, width, height };
}

/** Where the line of a board's course leads. */
function pathOf(board: Id): string {
  return `/live/boards/${board}`;
}
