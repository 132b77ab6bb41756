import {
  decodePiece,
  decodePoints,
  InkCodingError,
  MAX_MESSAGE_BYTES,
  mayWriteOn,
  MessageError,
  packMessage,
  PROTOCOL,
  readClientMessage,
} from '@cuaderno/core';
import type { Actor, Board, ClientMessage, Id, Point, Role, ServerMessage } from '@cuaderno/core';
import type { Duplex } from 'node:stream';
import type { WebSocket } from 'ws';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { problem } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import { Allowance } from './allowance.js';
import type { Member } from './member.js';
import { Outlet } from './outlet.js';
import type { LiveService } from './service.js';

/** How many times the lasting rate of messages may come at once. */
const BURST = 3;
/** Messages turned away before the connection is ended. */
const PATIENCE = 1000;

/** Why a connection ends, in the range RFC 6455 leaves to applications. */
export const CLOSE = {
  again: 4000,
  notIn: 4401,
  /** At the door: not let in, or sent out. */
  door: 4403,
  over: 4410,
  flood: 4429,
  old: 4426,
} as const;

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
export class LiveConnection implements Member {
  private readonly allowance: Allowance;
  private readonly outlet: Outlet;
  private turnedAway = 0;
  private joined = false;
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
    readonly person: Id,
    readonly role: Role,
    readonly board: Id,
    /** A student's lesson; a tutor's board may have one or not. */
    private readonly ownLesson: LiveLesson | null,
  ) {
    const { messagesPerSecond } = service;
    this.allowance = new Allowance(messagesPerSecond, BURST * messagesPerSecond);
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer, isBinary: boolean) => {
      void this.onMessage(isBinary ? data : data.toString());
    });
    socket.on('close', () => this.service.leave(this));
    socket.on('error', () => undefined);
    this.outlet = new Outlet(socket, line, (ms) => this.service.measured(this, ms));
  }

  get lesson(): LiveLesson | undefined {
    return this.ownLesson ?? this.service.lessonOn(this.board);
  }

  actor(): Actor {
    return this.role === 'tutor'
      ? { id: this.person, role: 'tutor', trust: 'hands' }
      : this.ownLesson!.actor(this.person);
  }

  send(bytes: Uint8Array): void {
    this.outlet.send(bytes);
  }

  sendLive(bytes: Uint8Array): void {
    this.outlet.sendLive(bytes);
  }

  tell(message: ServerMessage): void {
    this.send(packMessage(message));
  }

  drop(): void {
    this.socket.close(CLOSE.again);
  }

  close(code: number): void {
    this.socket.close(code);
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
    this.passStroke({ kind: 'live.end', stroke: this.stroke.id, by: this.person });
    this.stroke = null;
  }

  private async onMessage(data: Buffer | string): Promise<void> {
    if (!this.allowance.take()) {
      // Told once, not a thousand times.
      if (this.turnedAway++ === 0) this.refuse('message-too-many');
      if (this.turnedAway > PATIENCE) this.socket.close(CLOSE.flood);
      return;
    }
    // A flood a little above what is allowed adds up as well; a short one is forgiven.
    this.turnedAway = Math.max(0, this.turnedAway - 1);
    if (data.length > MAX_MESSAGE_BYTES) return this.refuse('message-too-large');
    let message: ClientMessage;
    try {
      message = readClientMessage(data);
    } catch (error) {
      if (!(error instanceof MessageError)) throw error;
      return this.refuse(
        error.reason === 'not-readable' ? 'message-not-readable' : 'message-wrong-shape',
      );
    }
    if (message.kind === 'hello') {
      if (message.protocol !== PROTOCOL) {
        this.refuse('other-protocol');
        this.socket.close(CLOSE.old);
      } else if (!this.joined) {
        this.joined = true;
        await this.service.join(this, message.since);
      }
      return;
    }
    if (message.kind === 'ping') return this.tell({ kind: 'pong', n: message.n });
    if (!this.joined) return this.refuse('message-wrong-shape');
    this.take(message);
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
        this.stroke = { id: message.stroke, page: message.start.page, n, origin };
        this.passStroke({ ...message, by: this.person, n });
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
        this.passStroke({ ...message, by: this.person });
        this.stroke = null;
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
