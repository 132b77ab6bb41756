import {
  appliesTo,
  CLOSE,
  MAX_MESSAGE_BYTES,
  MAX_OPERATIONS,
  mayWriteOn,
  MessageError,
  newId,
  packedBoard,
  packedKind,
  packedOperationIds,
  packMessage,
  PROTOCOL,
} from '@cuaderno/core';
import type {
  Actor,
  Board,
  ClientMessage,
  CloseCode,
  Id,
  Role,
  ServerMessage,
  Viewer,
} from '@cuaderno/core';
import type { Duplex } from 'node:stream';
import type { WebSocket } from 'ws';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { problem, ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import { Allowance } from './allowance.js';
import type { Resting, Spending } from './budgets.js';
import { refuse } from './commit.js';
import { StrokeUnderWay } from './features/ink/stroke.js';
import type { StrokePlace } from './features/ink/stroke.js';
import { readMessage } from './message-reader.js';
import type { WindowSeat } from './seat.js';
import { SendQueue } from './send-queue.js';
import type { Subscription } from './subscription.js';
import type { LiveService } from './service.js';

/** How many times the lasting rate of messages may come at once. */
const BURST = 3;
/** Messages turned away before the connection is ended. */
const PATIENCE = 1000;

/** What is said of a message that can't be read. */
const FAULTS: Record<MessageError['reason'], ProblemCode> = {
  'not-readable': 'message-not-readable',
  'wrong-shape': 'message-wrong-shape',
  'too-large': 'message-too-large',
};

/** How long a window may be there without a word, in ms. */
const HELLO_WITHIN = 10_000;
/** One window of one person: in the lesson of a course while one is open, and on the boards that it has open. */
export class LiveConnection implements Resting {
  /** By this, messages are addressed to it. */
  readonly id = newId();
  /** Who looks through it. */
  readonly viewer: Viewer;
  private readonly allowance: Allowance;
  private readonly sendQueue: SendQueue;
  private readonly spending: Spending;
  private turnedAway = 0;
  private joined = false;
  private ended = false;
  private waiting: ReturnType<typeof setTimeout> | undefined;
  /** The boards that it has open. */
  readonly boards = new Map<Id, Subscription>();
  /** The stroke that this window is drawing just now. */
  readonly stroke: StrokeUnderWay;

  constructor(
    private readonly socket: WebSocket,
    line: Duplex,
    private readonly service: LiveService,
    private readonly seat: WindowSeat,
  ) {
    this.viewer = { id: seat.person, role: seat.role };
    this.stroke = new StrokeUnderWay({
      person: seat.person,
      mayWrite: (place) => this.mayWrite(place),
      numberOf: (board) => service.numberOf(board),
      number: () => service.numberStroke(seat.course),
      passOn: (message, place) => service.passOn(this, message, place),
      refuse: () => this.refuse('message-wrong-shape'),
    });
    const { messagesPerSecond } = service;
    this.allowance = new Allowance(messagesPerSecond, BURST * messagesPerSecond);
    this.spending = service.budgets.open(seat.person, seat.role, this);
    service.opened(this);
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer, isBinary: boolean) =>
      this.onMessage(isBinary ? data : data.toString()),
    );
    const silence = setTimeout(() => this.joined || this.close(CLOSE.silent), HELLO_WITHIN);
    socket.on('close', () => {
      clearTimeout(silence);
      clearTimeout(this.waiting);
      this.ended = true;
      service.budgets.close(seat.person, this);
      this.guarded(() => service.leave(this));
    });
    socket.on('error', () => undefined);
    this.sendQueue = new SendQueue(socket, line, (ms) =>
      this.service.features.of.presence.measured(this, ms),
    );
  }

  /** Whether it says nothing and hears nothing any more. */
  get isOver(): boolean {
    return this.ended;
  }

  get person(): Id {
    return this.seat.person;
  }

  get role(): Role {
    return this.seat.role;
  }

  get course(): Id {
    return this.seat.course;
  }

  get lesson(): LiveLesson | undefined {
    return this.seat.lesson();
  }

  actor(): Actor {
    return this.seat.actor();
  }

  /** Why this window may say and hear nothing any more; `null` while it may. */
  gone(): CloseCode | null {
    return this.seat.gone();
  }

  mayKeep(bytes: number): boolean {
    return this.role === 'tutor' || (this.lesson?.mayKeep(this.person, bytes) ?? false);
  }

  keeps(bytes: number): void {
    this.lesson?.keeps(this.person, bytes);
  }

  worked(ms: number): void {
    this.spending.spend(0, ms);
  }

  send(bytes: Uint8Array): void {
    if (!this.ended) this.sendQueue.send(bytes);
  }

  sendLive(bytes: Uint8Array): void {
    if (!this.ended) this.sendQueue.sendLive(bytes);
  }

  tell(message: ServerMessage): void {
    this.send(packMessage(message));
  }

  drop(): void {
    this.close(CLOSE.again);
  }

  /** From here on this window says nothing and hears nothing, however long its browser takes to go. */
  close(code: CloseCode): void {
    if (this.ended) return;
    this.ended = true;
    this.socket.close(code);
    this.guarded(() => this.service.leave(this));
  }

  /** A board as it is this moment; `undefined` for one that this window hasn't open. */
  boardNow(board: Id): Board | undefined {
    return this.boards.has(board) ? this.service.boardOf(board) : undefined;
  }

  /** What goes wrong with a message ends this window, and nothing else. */
  failed(error: unknown): void {
    this.service.failedMessage(error, this);
    if (this.ended) return;
    this.refuse(error instanceof ProblemError ? error.code : 'internal');
    this.drop();
  }

  private guarded(what: () => void): void {
    try {
      what();
    } catch (error) {
      this.failed(error);
    }
  }

  private onMessage(data: Buffer | string): void {
    if (this.ended) return;
    const begun = performance.now();
    this.guarded(() => this.hear(data));
    this.spending.spend(data.length, performance.now() - begun);
  }

  /** Anyone who sends more than their share is read on when it is their turn again: nothing of it is lost. */
  rest(ms: number): void {
    if (this.ended || this.socket.isPaused) return;
    this.socket.pause();
    this.waiting = setTimeout(() => this.socket.resume(), ms);
  }

  private hear(data: Buffer | string): void {
    const gone = this.seat.gone();
    if (gone) return this.close(gone);
    if (!this.allowance.take()) {
      // Told once, not a thousand times.
      if (this.turnedAway++ === 0) this.refuse('message-too-many');
      if (this.turnedAway > PATIENCE) this.close(CLOSE.flood);
      return;
    }
    // A flood a little above what is allowed adds up as well; a short one is forgiven.
    this.turnedAway = Math.max(0, this.turnedAway - 1);
    if (data.length > MAX_MESSAGE_BYTES) return this.refuse('message-too-large');
    if (this.isRefusedUnread(data)) return;
    const message = this.read(data);
    if (!message) return;
    if (message.kind === 'hello') return this.hello(message);
    if (message.kind === 'ping') return this.tell({ kind: 'pong', n: message.n });
    if (!this.joined) return this.refuse('message-wrong-shape');
    this.service.features.handle(this, message);
  }

  private read(data: Buffer | string): ClientMessage | null {
    try {
      return readMessage(data, this.role);
    } catch (error) {
      if (!(error instanceof MessageError)) throw error;
      this.refuse(FAULTS[error.reason]);
      return null;
    }
  }

  private hello({ protocol, boards }: Extract<ClientMessage, { kind: 'hello' }>): void {
    if (protocol !== PROTOCOL) {
      this.refuse('other-protocol');
      return this.close(CLOSE.old);
    }
    if (this.joined) return;
    this.joined = true;
    this.service.join(this, boards).catch((error: unknown) => this.failed(error));
  }

  /**
   * Anyone who may do nothing on this board is told so before what they offer is built. What was taken already they
   * may send again: it is confirmed.
   */
  private isRefusedUnread(data: Buffer | string): boolean {
    if (this.role === 'tutor' || typeof data === 'string' || !this.joined) return false;
    if (packedKind(data) !== 'ops') return false;
    const subscription = this.boards.get(packedBoard(data) ?? '');
    if (!subscription) {
      this.refuse('board-not-open');
      return true;
    }
    const { board } = subscription;
    const actor = this.actor();
    const { trust, addPages } = appliesTo(actor, this.boardNow(board) ?? {}, undefined);
    if (trust !== 'view' || addPages) return false;
    const ids = packedOperationIds(data, MAX_OPERATIONS);
    if (ids.length === 0 || this.service.knowsAny(board, ids)) return false;
    const code = actor.trust === 'view' ? 'no-pen' : 'pens-in';
    for (const id of ids) refuse(subscription, board, id, code);
    return true;
  }

  private mayWrite(place: StrokePlace): boolean {
    const board = this.boardNow(place.board);
    return board !== undefined && mayWriteOn(this.actor(), board, board.pages.get(place.page));
  }

  refuse(code: ProblemCode): void {
    this.tell({ kind: 'problem', problem: problem(code) });
  }
}
