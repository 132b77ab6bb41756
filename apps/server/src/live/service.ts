import { CLOSE, MAX_BOARDS, maySee, teaches } from '@cuaderno/core';
import type { Audience, Board, BoardWanted, Id, Operation, ServerMessage } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import { setImmediate } from 'node:timers/promises';
import type { Boards } from '../boards/service.js';
import type { Database } from '../database/index.js';
import type { LiveLesson, Participant } from '../lessons/live-lesson.js';
import type { Lessons } from '../lessons/service.js';
import { problem, ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import type { Classroom } from './classroom.js';
import { Budgets } from './budgets.js';
import type { BoardHost } from './board-host.js';
import type { LiveConnection } from './connection.js';
import { Doorstep } from './doorstep.js';
import type { StrokePlace } from './features/ink/stroke.js';
import type { IceSettings } from './features/media/ice-servers.js';
import { LiveFeatures } from './features/live-features.js';
import type { StorageGuard } from './storage-guard.js';
import type { LessonBus } from './lesson-bus.js';
import { Subscription } from './subscription.js';

/** Windows that one person may have at once. */
const MAX_WINDOWS = 12;
/** Strokes of a course that are told apart: as many as two bytes say. */
const STROKE_NUMBERS = 1 << 14;

/** Where a lesson's record ends on one of its boards: the last place in its log, and the board there. */
export interface BoardEnd {
  readonly board: Board;
  readonly seq: number;
}

/** Everyone who is connected, and what passes between them. */
export class LiveService implements Classroom {
  /** Windows by the course that they are of: a tutor's are there before a lesson is. */
  private readonly connections = new Map<Id, Set<LiveConnection>>();
  /** The number that the last stroke in each course was given. */
  private readonly strokes = new Map<Id, number>();
  private readonly underClosing = new Map<Id, LiveLesson>();
  /** Every window there is, also those that haven't said hello. */
  private readonly all = new Set<LiveConnection>();
  readonly budgets = new Budgets();
  readonly features: LiveFeatures;
  /** Called when somebody came to a lesson's door, left it or was let in, and when the lesson is over. */
  onDoor: (lesson: LiveLesson) => void = () => undefined;
  /** Called when the class has a board from now on, or hasn't any more. */
  onBoardShown: (board: Id) => void = () => undefined;
  /** Called when a lesson was opened. */
  onOpened: (lesson: LiveLesson) => void = () => undefined;
  readonly doorstep = new Doorstep((lesson) => this.tellDoor(lesson));

  constructor(
    db: Database,
    private readonly bus: LessonBus,
    readonly lessons: Lessons,
    private readonly boards: Pick<Boards, 'one'>,
    private readonly log: FastifyBaseLogger,
    private readonly storageGuard: StorageGuard,
    /** What one window may send: a pen sends 60, with room for everything else. */
    readonly messagesPerSecond: number,
    /** By which servers windows find a way to one another. */
    readonly ice: IceSettings,
    /** Called with what went wrong and was caught. */
    private readonly caught: (error: unknown, where: string) => void,
  ) {
    this.features = new LiveFeatures(this, db);
    lessons.door.onChange = (lesson, moved) => this.moved(lesson, moved);
    bus.onFull = () => storageGuard.lost();
    storageGuard.onChange = (on) => {
      for (const windows of this.connections.values())
        for (const window of windows) window.tell({ kind: 'keeping', on });
    };
    bus.onRules = (board) => {
      const lesson = this.lessons.onBoard(board);
      if (!lesson) return;
      this.features.of.pens.stopStrokes(lesson);
      this.features.of.pointing.tell(lesson);
    };
    bus.onTitle = (board) => {
      const lesson = this.lessons.onBoard(board);
      const title = this.boardOf(board)?.title;
      if (!lesson || title === undefined) return;
      lesson.putBoard({ id: board, title, shown: lesson.shows(board) });
      this.features.of.lessonBoards.tell(lesson);
    };
  }

  /** Whether what is written can be kept just now. */
  get keeps(): boolean {
    return this.storageGuard.isOn;
  }

  *windows(lesson: LiveLesson): Iterable<LiveConnection> {
    for (const window of this.connections.get(lesson.course) ?? [])
      if (window.lesson === lesson) yield window;
  }

  *windowsFor(lesson: LiveLesson, audience: Audience): Iterable<LiveConnection> {
    for (const window of this.windows(lesson)) if (maySee(window.viewer, audience)) yield window;
  }

  /** The window of this id, if it is in the lesson of the one that writes to it. */
  addressee({ lesson }: LiveConnection, id: Id): LiveConnection | undefined {
    if (!lesson) return undefined;
    for (const window of this.windows(lesson))
      if (window.id === id && window.gone() === null) return window;
    return undefined;
  }

  audienceOf(lesson: LiveLesson, board: Id, page: Id): Audience {
    if (!lesson.shows(board)) return 'tutors';
    return this.bus.open(board)?.audienceOf(page) ?? 'tutors';
  }

  /** The board as it is this moment, to look at only; `undefined` where it isn't open. */
  boardOf(board: Id): Board | undefined {
    return this.bus.open(board)?.now;
  }

  /** Something went wrong with a message: its window is ended, and everyone else goes on. */
  failedMessage(error: unknown, { course, role }: LiveConnection): void {
    if (error instanceof ProblemError)
      return this.log.warn({ course, role, code: error.code }, 'a message failed');
    this.caught(error, 'a message');
  }

  /** Sessions have ended: windows that were open for them are closed at once. */
  sessionsEnded(): void {
    for (const window of this.all) if (window.role === 'tutor') this.check(window);
  }

  opened(window: LiveConnection): void {
    this.all.add(window);
  }

  /** Ends a window that has no right to be there any more. */
  private check(window: LiveConnection): boolean {
    const gone = window.gone();
    if (gone) window.close(gone);
    return gone === null;
  }

  /** Whether an operation with one of these ids was taken on a board. */
  knowsAny(board: Id, ids: readonly Id[]): boolean {
    return this.bus.open(board)?.knowsAny(ids) ?? false;
  }

  failed(error: unknown, words: string): void {
    this.log.error({ err: error }, `${words} was not kept`);
  }

  keep(what: Promise<unknown>, words: string): void {
    what.catch((error: unknown) => this.failed(error, words));
  }

  /** Who is still here leaves; that is asked of the database when this is done, and it does what was asked before it closes. */
  async shutDown(): Promise<void> {
    for (const window of [...this.all]) this.leave(window);
    await setImmediate();
  }

  /**
   * Lets a window in: it is told who it is, the boards that it asked for, and what holds in the lesson.
   * Throws what keeps a board from being opened.
   */
  async join(connection: LiveConnection, wanted: readonly BoardWanted[]): Promise<void> {
    if (this.budgets.windowsOf(connection.person) > MAX_WINDOWS)
      return connection.close(CLOSE.flood);
    // Anyone who was sent out since this window was opened, or whose lesson was closed, is sent nothing.
    if (!this.check(connection)) return;
    const { lesson: first, course } = connection;
    connection.tell({
      kind: 'welcome',
      you: connection.person,
      window: connection.id,
      role: connection.role,
      now: Date.now(),
      lesson: first ? { id: first.id, openedAt: first.openedAt } : null,
    });
    if (!this.storageGuard.isOn) connection.tell({ kind: 'keeping', on: false });
    // One that is named twice is sent once.
    const apart = new Map(wanted.map((one) => [one.board, one.since]));
    for (const [board, since] of apart) await this.openBoard(connection, board, since);
    // It may have gone while they came.
    if (connection.isOver || !this.check(connection)) return;
    const here = this.connections.get(course) ?? new Set();
    here.add(connection);
    this.connections.set(course, here);
    // It may have been opened while the boards came.
    const lesson = connection.lesson;
    if (!lesson) return;
    if (lesson.id !== first?.id)
      connection.tell({ kind: 'lesson', lesson: { id: lesson.id, openedAt: lesson.openedAt } });
    this.features.sendSnapshot(connection);
    await this.noted(this.lessons.windowOpened(lesson, connection.person));
    this.tellPeople(lesson);
    this.features.of.presence.tellWindows(lesson);
    if (connection.role !== 'tutor') this.check(connection);
  }

  /**
   * A window shows this board from now on, or is told why it can't. Throws what keeps the board from being opened.
   * @param wanted `null` for the one to begin on
   */
  async openBoard(window: LiveConnection, wanted: Id | null, since: number): Promise<void> {
    const no = (code: ProblemCode): void =>
      window.tell({ kind: 'board.closed', board: wanted, problem: problem(code) });
    const board = wanted ?? window.lesson?.startBoard;
    if (!board || !(await this.mayOpen(window, board))) return no('board-not-here');
    if (!window.boards.has(board) && window.boards.size >= MAX_BOARDS) return no('boards-full');
    const host = await this.bus.host(board);
    if (!host) return no('board-not-here');
    if (window.isOver) return;
    // One that is opened again comes anew.
    this.closeBoard(window, board);
    const subscription = new Subscription(board, window);
    window.boards.set(board, subscription);
    const isWanted = (): boolean =>
      !window.isOver &&
      window.boards.get(board) === subscription &&
      this.check(window) &&
      (teaches(window.role) || (window.lesson?.shows(board) ?? false));
    await host.join(subscription, since, (seen) => {
      if (!isWanted()) return undefined;
      const page = window.lesson?.leaderPage(board) ?? null;
      return page && seen.pages.has(page) ? page : null;
    });
  }

  closeBoard(window: LiveConnection, board: Id): void {
    const subscription = window.boards.get(board);
    if (!subscription) return;
    // The others see it go while the window is still one of those on the board.
    if (window.stroke.isOn(board)) window.stroke.stop();
    window.boards.delete(board);
    this.bus.open(board)?.leave(subscription);
  }

  /** Who teaches any board of the course that the window is of; others those that the class has. */
  private async mayOpen(
    { role, person, course, lesson }: LiveConnection,
    board: Id,
  ): Promise<boolean> {
    if (!teaches(role)) return lesson?.shows(board) ?? false;
    const tutor = role === 'tutor' ? person : (lesson?.tutor ?? '');
    const found = await this.boards.one(board, tutor).catch((error: unknown) => {
      if (error instanceof ProblemError) return null;
      throw error;
    });
    return found?.course === course;
  }

  /** The class has another board from now on. Throws `board-not-here`, `lesson-boards-full`. */
  async showBoard(lesson: LiveLesson, board: Id): Promise<void> {
    const { course, title } = await this.boards.one(board, lesson.tutor);
    if (course !== lesson.course) throw new ProblemError('board-not-here');
    if (lesson.shows(board)) return;
    await this.lessons.putBoard(lesson, { id: board, title, shown: true });
    await this.belongsTo(lesson, board);
    this.onBoardShown(board);
  }

  /** Takes a board back from the class. Throws `last-board`. */
  async withdrawBoard(lesson: LiveLesson, board: Id): Promise<void> {
    const shown = lesson.allBoards().filter((one) => one.shown);
    const taken = shown.find(({ id }) => id === board);
    if (!taken) return;
    if (shown.length === 1) throw new ProblemError('last-board');
    await this.lessons.putBoard(lesson, { ...taken, shown: false });
    for (const window of this.windows(lesson))
      if (!teaches(window.role) && window.boards.has(board)) {
        this.closeBoard(window, board);
        window.tell({ kind: 'board.closed', board, problem: problem('board-withdrawn') });
      }
    this.onBoardShown(board);
  }

  /** What is written on a board belongs to the lesson from now on. */
  private async belongsTo(lesson: LiveLesson, board: Id): Promise<void> {
    const host = await this.bus.host(board);
    await host?.between((_board, _seq, here) => {
      if (this.lessons.get(lesson.id) === lesson) here.lesson = lesson.id;
    });
  }

  leave(connection: LiveConnection): void {
    this.all.delete(connection);
    for (const board of [...connection.boards.keys()]) this.closeBoard(connection, board);
    const here = this.connections.get(connection.course);
    if (!here?.delete(connection)) return;
    if (here.size === 0) {
      this.connections.delete(connection.course);
      this.strokes.delete(connection.course);
    }
    const { lesson } = connection;
    if (!lesson) return;
    this.features.leave(connection);
    this.keep(this.lessons.windowClosed(lesson, connection.person), 'attendance');
    this.tellPeople(lesson);
  }

  offer(connection: LiveConnection, board: Id, ops: Operation[]): void {
    // The one who wrote it keeps it, and offers it again when they are told that writing goes on.
    if (!this.storageGuard.isOn) return connection.tell({ kind: 'keeping', on: false });
    const subscription = connection.boards.get(board);
    if (!subscription) return connection.refuse('board-not-open');
    const host = this.bus.open(board);
    if (host) host.offer(ops, subscription);
    else connection.drop();
  }

  /** What is on pages; a host that can't say has its windows come back to another. */
  give(connection: LiveConnection, board: Id, ids: readonly Id[]): void {
    const subscription = connection.boards.get(board);
    if (!subscription) return connection.refuse('board-not-open');
    const host = this.bus.open(board);
    if (host) host.give(subscription, ids).catch(() => connection.drop());
    else connection.drop();
  }

  /** Live traffic about a page: to everyone else who is shown it and can keep up. */
  passOn(from: LiveConnection, message: ServerMessage, { board, page }: StrokePlace): void {
    const subscription = from.boards.get(board);
    const host = this.bus.open(board);
    if (host && subscription) host.broadcastLive(message, subscription, host.audienceOf(page));
  }

  /** What stands for an open board in what is told of it. */
  numberOf(board: Id): number {
    return this.bus.open(board)?.number ?? 0;
  }

  /** What stands for a stroke in its pieces; numbers come again when nobody remembers what they stood for. */
  numberStroke(course: Id): number {
    const n = ((this.strokes.get(course) ?? 0) + 1) % STROKE_NUMBERS;
    this.strokes.set(course, n);
    return n;
  }

  /** A lesson has begun: its tutor's windows are in it now. */
  async lessonOpened(lesson: LiveLesson): Promise<void> {
    for (const { id } of lesson.allBoards()) await this.belongsTo(lesson, id);
    for (const connection of this.windows(lesson)) {
      await this.noted(this.lessons.windowOpened(lesson, connection.person));
      connection.tell({
        kind: 'lesson',
        lesson: { id: lesson.id, openedAt: lesson.openedAt },
      });
      this.features.sendSnapshot(connection);
    }
    this.tellPeople(lesson);
    this.features.of.presence.tellWindows(lesson);
    this.onOpened(lesson);
  }

  /**
   * Ends a lesson between two commits of all its boards: what was taken before is in its record, nothing after.
   * @param seal writes down where the record ends on each board, in the order in which they came
   */
  async closeLesson(
    lesson: LiveLesson,
    seal: (at: number, ends: readonly BoardEnd[]) => Promise<void>,
  ): Promise<void> {
    this.underClosing.set(lesson.id, lesson);
    try {
      await this.close(lesson, seal);
    } finally {
      this.underClosing.delete(lesson.id);
    }
  }

  /** A lesson that is being closed this moment: anyone who closes it too is told the same. */
  closing(lesson: Id): LiveLesson | undefined {
    return this.underClosing.get(lesson);
  }

  private async close(
    lesson: LiveLesson,
    seal: (at: number, ends: readonly BoardEnd[]) => Promise<void>,
  ): Promise<void> {
    const windows = [...this.windows(lesson)];
    await this.standStill(lesson, async (ends, hosts) => {
      // Closed twice at once, by its tutor and because they seemed to be gone, it is one lesson.
      if (this.lessons.get(lesson.id) !== lesson) return;
      const at = Date.now();
      windows.splice(0, windows.length, ...this.windows(lesson));
      await this.lessons.end(lesson, at);
      await seal(at, ends);
      for (const host of hosts) host.lesson = null;
      for (const window of windows) window.tell({ kind: 'over', at });
    });
    for (const window of [...this.all]) if (window.course === lesson.course) this.check(window);
    this.doorstep.over(lesson);
    this.onDoor(lesson);
  }

  /**
   * Does something while all boards of a lesson stand still, each between two commits. They are taken in the order of
   * their ids: who waits for one never holds another that comes before it.
   */
  private async standStill(
    lesson: LiveLesson,
    what: (ends: readonly BoardEnd[], hosts: readonly BoardHost[]) => Promise<void>,
  ): Promise<void> {
    const inOrder = lesson.allBoards().map(({ id }) => id);
    const still = new Map<Id, BoardEnd & { readonly host: BoardHost }>();
    const next = async ([id, ...rest]: readonly Id[]): Promise<void> => {
      if (id === undefined) {
        const ends = inOrder.flatMap((one) => still.get(one) ?? []);
        return what(
          ends.map(({ board, seq }) => ({ board, seq })),
          ends.map(({ host }) => host),
        );
      }
      // One that was taken out of the course has no end here; the others have.
      const host = await this.bus.host(id);
      if (!host) return next(rest);
      await host.between((board, seq, here) => {
        still.set(id, { board, seq, host: here });
        return next(rest);
      });
    };
    await next([...inOrder].sort());
  }

  /** Late lines have come of a lesson: its tutor is told on all boards of the course. */
  lateCame({ course }: { readonly course: Id }): void {
    for (const window of this.connections.get(course) ?? [])
      if (maySee(window.viewer, 'tutors')) window.tell({ kind: 'late' });
  }

  /**
   * The tutor has added late lines, or left them.
   * @param device the browser by which they were written, if it is known
   */
  lateSettled(of: { readonly course: Id }, device: string | null): void {
    this.lateCame(of);
    for (const window of this.windowsOf(of.course))
      if (device && window.lesson?.person(window.person)?.device === device)
        window.tell({ kind: 'late' });
  }

  /** Something was handed over in a course, fetched or taken back: all in its open lesson look anew. */
  handOversChanged(course: Id): void {
    for (const window of this.windowsOf(course)) window.tell({ kind: 'handed' });
  }

  /** Windows in the open lesson of a course. */
  private windowsOf(course: Id): Iterable<LiveConnection> {
    const lesson = this.lessons.ofCourse(course);
    return lesson ? this.windows(lesson) : [];
  }

  /** Students of this tutor's lessons may look at other things from now on. */
  materialsChanged(tutor: Id): void {
    for (const here of this.connections.values())
      for (const connection of here)
        if (connection.role !== 'tutor' && connection.lesson?.tutor === tutor)
          connection.tell({ kind: 'materials' });
  }

  /** Somebody stands elsewhere now: those who aren't in hear nothing of the lesson from here on. */
  private moved(lesson: LiveLesson, moved: readonly Participant[]): void {
    const ids = new Set(moved.map(({ id }) => id));
    // Of who was sent out, and of who is something else from now on.
    for (const window of [...this.all])
      if (ids.has(window.person) && window.gone()) {
        window.stroke.stop();
        this.check(window);
      }
    if (ids.has(lesson.lead ?? '')) this.features.of.pens.lead(lesson, null);
    this.doorstep.tell(lesson, moved);
    this.tellDoor(lesson);
    this.tellPeople(lesson);
  }

  private tellDoor(lesson: LiveLesson): void {
    this.onDoor(lesson);
    const arrivals = lesson.arrivals();
    for (const window of this.windowsFor(lesson, 'tutors')) window.tell({ kind: 'door', arrivals });
  }

  tellPeople(lesson: LiveLesson, audience: Audience = 'everyone'): void {
    const audienceOf = (board: Id, page: Id): Audience => this.audienceOf(lesson, board, page);
    for (const window of this.windowsFor(lesson, audience))
      window.tell({ kind: 'people', people: lesson.list(window.viewer, audienceOf) });
  }

  /** What can't be noted is no reason to stop a lesson. */
  private async noted(note: Promise<void>): Promise<void> {
    await note.catch((error: unknown) => this.failed(error, 'attendance'));
  }
}
