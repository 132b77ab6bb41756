import { CLOSE, maySee } from '@cuaderno/core';
import type { Audience, Board, Id, Operation, ServerMessage } from '@cuaderno/core';
import type { FastifyBaseLogger } from 'fastify';
import type { Database } from '../database/index.js';
import type { LiveLesson, Participant } from '../lessons/live-lesson.js';
import type { Lessons } from '../lessons/service.js';
import { ProblemError } from '../problems/index.js';
import type { Classroom } from './classroom.js';
import { Budgets } from './budgets.js';
import type { LiveConnection } from './connection.js';
import { Doorstep } from './doorstep.js';
import { LiveFeatures } from './features/live-features.js';
import type { StorageGuard } from './storage-guard.js';
import type { LessonBus } from './lesson-bus.js';

/** Windows that one person may have at once. */
const MAX_WINDOWS = 12;

/** Everyone who is connected, and what passes between them. */
export class LiveService implements Classroom {
  private readonly connections = new Map<Id, Set<LiveConnection>>();
  private readonly underClosing = new Map<Id, LiveLesson>();
  /** Every window there is, also those that haven't said hello. */
  private readonly all = new Set<LiveConnection>();
  readonly budgets = new Budgets();
  readonly features: LiveFeatures;
  /** Called when somebody came to a lesson's door, left it or was let in, and when the lesson is over. */
  onDoor: (lesson: LiveLesson) => void = () => undefined;
  /** Called when a lesson was opened. */
  onOpened: (lesson: LiveLesson) => void = () => undefined;
  readonly doorstep = new Doorstep((lesson) => this.tellDoor(lesson));

  constructor(
    db: Database,
    private readonly bus: LessonBus,
    readonly lessons: Lessons,
    private readonly log: FastifyBaseLogger,
    private readonly storageGuard: StorageGuard,
    /** What one window may send: a pen sends 60, with room for everything else. */
    readonly messagesPerSecond: number,
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
      this.features.of.pens.stopStrokes(board);
      const lesson = this.lessonOn(board);
      if (lesson) this.features.of.pointing.tell(lesson);
    };
  }

  /** Whether what is written can be kept just now. */
  get keeps(): boolean {
    return this.storageGuard.isOn;
  }

  windows(board: Id): Iterable<LiveConnection> {
    return this.connections.get(board) ?? [];
  }

  *windowsFor(board: Id, audience: Audience): Iterable<LiveConnection> {
    for (const window of this.windows(board)) if (maySee(window.viewer, audience)) yield window;
  }

  /** The window of this id, if it is in the lesson of the one that writes to it. */
  addressee({ board, lesson }: LiveConnection, id: Id): LiveConnection | undefined {
    if (!lesson) return undefined;
    for (const window of this.windows(board))
      if (window.id === id && window.lesson === lesson && window.gone() === null) return window;
    return undefined;
  }

  audienceOf(board: Id, page: Id): Audience {
    return this.bus.open(board)?.audienceOf(page) ?? 'tutors';
  }

  /** The board as it is this moment, to look at only; `undefined` where it isn't open. */
  boardOf(board: Id): Board | undefined {
    return this.bus.open(board)?.now;
  }

  /** Something went wrong with a message: its window is ended, and everyone else goes on. */
  failedMessage(error: unknown, { board, role }: LiveConnection): void {
    if (error instanceof ProblemError)
      return this.log.warn({ board, role, code: error.code }, 'a message failed');
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

  knowsAny(board: Id, ids: readonly Id[]): boolean {
    return this.bus.open(board)?.knowsAny(ids) ?? false;
  }

  failed(error: unknown, words: string): void {
    this.log.error({ err: error }, `${words} was not kept`);
  }

  keep(what: Promise<unknown>, words: string): void {
    what.catch((error: unknown) => this.failed(error, words));
  }

  lessonOn(board: Id): LiveLesson | undefined {
    return this.lessons.onBoard(board);
  }

  /** Throws what keeps the board from being opened. */
  async join(connection: LiveConnection, since: number): Promise<void> {
    if (this.budgets.windowsOf(connection.person) > MAX_WINDOWS)
      return connection.close(CLOSE.flood);
    const host = await this.bus.host(connection.board);
    if (!host) return connection.close(CLOSE.notIn);
    const { lesson } = connection;
    // Anyone who was sent out since this window was opened, or whose lesson was closed, is sent nothing.
    const mayStay = (): boolean => this.check(connection);
    if (!mayStay()) return;
    await host.join(connection, since, (seen) =>
      mayStay()
        ? {
            kind: 'welcome',
            you: connection.person,
            window: connection.id,
            role: connection.role,
            now: Date.now(),
            lesson: lesson ? { id: lesson.id, openedAt: lesson.openedAt } : null,
            page: seen.pages.has(lesson?.leaderPage ?? '') ? lesson!.leaderPage : null,
          }
        : null,
    );
    if (!mayStay()) return;
    const here = this.connections.get(connection.board) ?? new Set();
    here.add(connection);
    this.connections.set(connection.board, here);
    if (!this.storageGuard.isOn) connection.tell({ kind: 'keeping', on: false });
    if (!lesson) return;
    this.features.sendSnapshot(connection);
    await this.noted(this.lessons.windowOpened(lesson, connection.person));
    this.tellPeople(lesson);
    this.features.of.presence.tellWindows(lesson);
    if (connection.role !== 'tutor') mayStay();
  }

  leave(connection: LiveConnection): void {
    this.all.delete(connection);
    this.bus.open(connection.board)?.leave(connection);
    const here = this.connections.get(connection.board);
    if (!here?.delete(connection)) return;
    if (here.size === 0) this.connections.delete(connection.board);
    connection.stroke.stop();
    const { lesson } = connection;
    if (!lesson) return;
    this.features.of.pointing.point(connection, null);
    this.keep(this.lessons.windowClosed(lesson, connection.person), 'attendance');
    this.tellPeople(lesson);
    this.features.of.presence.tellWindows(lesson);
  }

  offer(connection: LiveConnection, ops: Operation[]): void {
    // The one who wrote it keeps it, and offers it again when they are told that writing goes on.
    if (!this.storageGuard.isOn) return connection.tell({ kind: 'keeping', on: false });
    const host = this.bus.open(connection.board);
    if (host) host.offer(ops, connection);
    else connection.drop();
  }

  /** What is on pages; a host that can't say has its windows come back to another. */
  give(connection: LiveConnection, ids: readonly Id[]): void {
    const host = this.bus.open(connection.board);
    if (host) host.give(connection, ids).catch(() => connection.drop());
    else connection.drop();
  }

  /** Live traffic about a page: to everyone else who is shown it and can keep up. */
  passOn(from: LiveConnection, message: ServerMessage, page: Id): void {
    const host = this.bus.open(from.board);
    host?.broadcastLive(message, from, host.audienceOf(page));
  }

  /** A number for a stroke that begins on this board. */
  numberStroke(board: Id): number {
    return this.bus.open(board)?.numberStroke() ?? 0;
  }

  /** A lesson has begun on this board: its tutor's windows are in it now. */
  async lessonOpened(lesson: LiveLesson): Promise<void> {
    const host = await this.bus.host(lesson.board);
    if (host) host.lesson = lesson.id;
    for (const connection of this.connections.get(lesson.board) ?? []) {
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
   * Ends a lesson between two commits: all that was taken before is in its record, nothing after.
   * @param seal writes down where the record ends, given the last place in the log and the board there
   */
  async closeLesson(
    lesson: LiveLesson,
    seal: (at: number, seq: number, board: Board) => Promise<void>,
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
    seal: (at: number, seq: number, board: Board) => Promise<void>,
  ): Promise<void> {
    const host = await this.bus.host(lesson.board);
    if (!host) return;
    await host.between(async (board, seq, here) => {
      // Closed twice at once, by its tutor and because they seemed to be gone, it is one lesson.
      if (this.lessons.get(lesson.id) !== lesson) return;
      const at = Date.now();
      await this.lessons.end(lesson, at);
      await seal(at, seq, board);
      here.lesson = null;
      here.broadcast({ kind: 'over', at });
    });
    for (const window of [...this.all]) if (window.lesson === lesson) this.check(window);
    this.doorstep.over(lesson);
    this.onDoor(lesson);
  }

  /** Late lines have come of a lesson: its tutor is told on its board, and in a lesson of the course that is open. */
  lateCame({ course, board }: { readonly course: Id; readonly board: Id }): void {
    for (const window of new Set([...this.windows(board), ...this.windowsOf(course)]))
      if (maySee(window.viewer, 'tutors')) window.tell({ kind: 'late' });
  }

  /**
   * The tutor has added late lines, or left them.
   * @param device the browser by which they were written, if it is known
   */
  lateSettled(of: { readonly course: Id; readonly board: Id }, device: string | null): void {
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
    return lesson ? this.windows(lesson.board) : [];
  }

  /** Students of this tutor's lessons may look at other things from now on. */
  materialsChanged(tutor: Id): void {
    for (const here of this.connections.values())
      for (const connection of here)
        if (connection.role === 'student' && connection.lesson?.tutor === tutor)
          connection.tell({ kind: 'materials' });
  }

  /** Somebody stands elsewhere now: those who aren't in hear nothing of the lesson from here on. */
  private moved(lesson: LiveLesson, moved: readonly Participant[]): void {
    const out = new Set(moved.filter(({ door }) => door !== 'in').map(({ id }) => id));
    for (const window of [...this.all])
      if (out.has(window.person)) {
        window.stroke.stop();
        this.check(window);
      }
    if (out.has(lesson.lead ?? '')) this.features.of.pens.lead(lesson, null);
    this.doorstep.tell(lesson, moved);
    this.tellDoor(lesson);
    this.tellPeople(lesson);
  }

  private tellDoor(lesson: LiveLesson): void {
    this.onDoor(lesson);
    const arrivals = lesson.arrivals();
    for (const window of this.windowsFor(lesson.board, 'tutors'))
      window.tell({ kind: 'door', arrivals });
  }

  tellPeople(lesson: LiveLesson, audience: Audience = 'everyone'): void {
    const audienceOf = (page: Id): Audience => this.audienceOf(lesson.board, page);
    for (const window of this.windowsFor(lesson.board, audience))
      window.tell({ kind: 'people', people: lesson.list(window.viewer, audienceOf) });
  }

  /** What can't be noted is no reason to stop a lesson. */
  private async noted(note: Promise<void>): Promise<void> {
    await note.catch((error: unknown) => this.failed(error, 'attendance'));
  }
}
