import {
  appliesTo,
  decodePiece,
  decodePoints,
  InkCodingError,
  MAX_MESSAGE_BYTES,
  MAX_OPERATIONS,
  mayWriteOn,
  MessageError,
  packedKind,
  packedOperationIds,
  packMessage,
  PROTOCOL,
} from '@cuaderno/core';
import type { Actor, Board, ClientMessage, Id, Point, Role, ServerMessage } from '@cuaderno/core';
import type { Duplex } from 'node:stream';
import type { WebSocket } from 'ws';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { problem, ProblemError } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import { Allowance } from './allowance.js';
import type { Resting, Spending } from './budgets.js';
import { CLOSE } from './close-codes.js';
import type { CloseCode } from './close-codes.js';
import { refuse } from './commit.js';
import type { Member } from './member.js';
import { readMessage } from './message-reader.js';
import { Outlet } from './outlet.js';
import type { Seat } from './seat.js';
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
/** Strokes of a window that may become lines yet. */
const STROKES = 16;

/** What only a tutor may say. */
type TutorMessage = Extract<
  ClientMessage,
  {
    kind:
      | 'trust'
      | 'rules'
      | 'lead'
      | 'plan'
      | 'lower'
      | 'signals.clear'
      | 'chat.empty'
      | 'arrows.clear'
      | 'step'
      | 'door';
  }
>;

/** One window of one person, connected to one board. */
export class LiveConnection implements Member, Resting {
  private readonly allowance: Allowance;
  private readonly outlet: Outlet;
  private readonly spending: Spending;
  private turnedAway = 0;
  private joined = false;
  private ended = false;
  private waiting: ReturnType<typeof setTimeout> | undefined;
  /** Numbers of the strokes that were drawn last, by the ids of the lines that they will be. */
  private readonly numbers = new Map<Id, number>();
  /** The stroke this window is drawing just now. */
  private stroke: {
    readonly id: Id;
    readonly page: Id;
    /** What stands for it in its pieces, and the point from which they are reckoned. */
    readonly n: number;
    readonly origin: Point;
  } | null = null;

  constructor(
    private readonly socket: WebSocket,
    line: Duplex,
    private readonly service: LiveService,
    private readonly seat: Seat,
  ) {
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
    this.outlet = new Outlet(socket, line, (ms) => this.service.measured(this, ms));
  }

  get person(): Id {
    return this.seat.person;
  }

  get role(): Role {
    return this.seat.role;
  }

  get board(): Id {
    return this.seat.board;
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

  strokeThatIs(op: Id): number | undefined {
    const n = this.numbers.get(op);
    this.numbers.delete(op);
    return n;
  }

  send(bytes: Uint8Array): void {
    if (!this.ended) this.outlet.send(bytes);
  }

  sendLive(bytes: Uint8Array): void {
    if (!this.ended) this.outlet.sendLive(bytes);
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

  /** The board as it is this moment. */
  boardNow(): Board | undefined {
    return this.service.boardOf(this.board);
  }

  /** Gives up the stroke under way if its writer may not write where it is any longer. */
  checkStroke(): void {
    if (this.stroke && !this.mayWrite(this.stroke.page)) this.stopStroke();
  }

  /** Gives up the stroke under way: the pen was taken back. */
  stopStroke(): void {
    if (!this.stroke) return;
    this.passStroke({ kind: 'live.end', n: this.stroke.n, item: null });
    this.stroke = null;
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

  /** Whoever sends more than their share is read on when it is their turn again: nothing of it is lost. */
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
    this.take(message);
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

  private hello({ protocol, since }: Extract<ClientMessage, { kind: 'hello' }>): void {
    if (protocol !== PROTOCOL) {
      this.refuse('other-protocol');
      return this.close(CLOSE.old);
    }
    if (this.joined) return;
    this.joined = true;
    this.service.join(this, since).catch((error: unknown) => this.failed(error));
  }

  /**
   * Whoever may do nothing on this board is told so before what they offer is built. What was taken already they
   * may send again: it is confirmed.
   */
  private isRefusedUnread(data: Buffer | string): boolean {
    if (this.role === 'tutor' || typeof data === 'string' || !this.joined) return false;
    if (packedKind(data) !== 'ops') return false;
    const actor = this.actor();
    const { trust, addPages } = appliesTo(actor, this.boardNow() ?? {}, undefined);
    if (trust !== 'look' || addPages) return false;
    const ids = packedOperationIds(data, MAX_OPERATIONS);
    if (ids.length === 0 || this.service.knowsAny(this.board, ids)) return false;
    for (const id of ids) refuse(this, id, actor.trust === 'look' ? 'no-pen' : 'pens-in');
    return true;
  }

  private take(message: Exclude<ClientMessage, { kind: 'hello' | 'ping' }>): void {
    switch (message.kind) {
      case 'ops':
        this.service.offer(this, message.ops);
        break;
      case 'live.ink': {
        if (!this.mayWrite(message.start.page)) return;
        const [origin] = this.inked(() => decodePoints(message.points));
        if (!origin) return;
        const n = this.service.numberStroke(this.board);
        const { stroke, ...rest } = message;
        this.stroke = { id: stroke, page: message.start.page, n, origin };
        this.numbers.set(stroke, n);
        if (this.numbers.size > STROKES) this.numbers.delete(this.numbers.keys().next().value!);
        this.passStroke({ ...rest, by: this.person, n });
        break;
      }
      case 'live.more': {
        // A stroke that nobody was told of has no page, and is nobody's to see.
        const { stroke } = this;
        if (!stroke || !this.mayWrite(stroke.page)) return;
        if (this.inked(() => decodePiece(message.piece, stroke.origin)).length === 0) return;
        this.passStroke({ kind: 'live.more', n: stroke.n, piece: message.piece });
        break;
      }
      case 'live.end':
        if (this.stroke?.id !== message.stroke) return;
        this.stopStroke();
        break;
      case 'pages':
        this.service.give(this, message.ids);
        break;
      case 'look':
        this.service.look(this, message.page);
        break;
      case 'hand':
        this.service.talking.hand(this, message.up);
        break;
      case 'signal':
        this.service.talking.signal(this, message.signal);
        break;
      case 'chat':
        this.service.talking
          .chat(this, message.id, message.to, message.text)
          .catch((error: unknown) => {
            this.service.failed(error, 'a message');
            this.refuse('chat-not-kept');
          });
        break;
      case 'point':
        this.service.showing.point(this, message.at);
        break;
      case 'arrow':
        this.service.showing.arrow(this, message.at);
        break;
      case 'lamp':
        this.service.showing.lamp(this, message.lamp, message.rest);
        break;
      case 'view':
        this.service.leading.view(this, message.view, message.rest);
        break;
      case 'gather':
        this.service.leading.gather(this, message.view);
        break;
      case 'window':
        this.service.window(this, message.machine, message.size, message.view);
        break;
      default:
        if (this.role === 'tutor') this.obey(message);
        else this.refuse('tutor-only');
    }
  }

  /** What only a tutor says. */
  private obey(message: TutorMessage): void {
    const { holding, talking, showing, leading } = this.service;
    switch (message.kind) {
      case 'trust':
        return holding.trust(this, message.who, message.trust);
      case 'rules':
        return holding.rules(this, message.who, message.over);
      case 'lead':
        return this.lesson && holding.lead(this.lesson, message.who);
      case 'plan':
        return holding.plan(this, message.endsAt);
      case 'lower':
        return talking.lower(this, message.who);
      case 'signals.clear':
        return talking.clearSignals(this);
      case 'chat.empty':
        return talking.empty(this);
      case 'arrows.clear':
        return showing.clear(this);
      case 'step':
        return leading.step(this, message.on);
      case 'door':
        return this.service.door(this, message.who, message.word);
    }
  }

  /** Points of a stroke under way; none, and a word to who sent them, where no pen could have drawn them. */
  private inked(read: () => readonly Point[]): readonly Point[] {
    try {
      return read();
    } catch (error) {
      if (!(error instanceof InkCodingError)) throw error;
      this.refuse('message-wrong-shape');
      return [];
    }
  }

  /** Tells of the stroke under way, if its page may be seen. */
  private passStroke(message: ServerMessage): void {
    const { page } = this.stroke!;
    this.service.passOn(this, message, this.service.viewersOf(this.board, page));
  }

  private mayWrite(page: Id): boolean {
    const board = this.boardNow();
    return board !== undefined && mayWriteOn(this.actor(), board, board.pages.get(page));
  }

  refuse(code: ProblemCode): void {
    this.tell({ kind: 'problem', problem: problem(code) });
  }
}
