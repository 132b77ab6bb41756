import {
  decodePoints,
  InkCodingError,
  MAX_MESSAGE_BYTES,
  mayWrite,
  MessageError,
  pack,
  PROTOCOL,
  readClientMessage,
} from '@cuaderno/core';
import type { Actor, ClientMessage, Id, Role, ServerMessage } from '@cuaderno/core';
import type { WebSocket } from 'ws';
import type { LiveLesson } from '../lessons/live-lesson.js';
import { problem } from '../problems/index.js';
import type { ProblemCode } from '../problems/index.js';
import { Allowance } from './allowance.js';
import type { Member } from './member.js';
import type { LiveService } from './service.js';

/** How many times the lasting rate of messages may come at once. */
const BURST = 3;
/** Messages turned away before the connection is ended. */
const PATIENCE = 1000;
/** Bytes waiting to be sent above which live traffic is dropped, and everything is given up. */
const LIVE_BACKLOG = 256 * 1024;
const BACKLOG = 16 * 1024 * 1024;

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

/** One window of one person, connected to one board. */
export class LiveConnection implements Member {
  private readonly allowance: Allowance;
  private turnedAway = 0;
  private joined = false;
  /** The stroke this window is drawing just now. */
  private stroke: { readonly id: Id; readonly page: Id | null } | null = null;

  constructor(
    private readonly socket: WebSocket,
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
    if (this.socket.readyState !== this.socket.OPEN) return;
    // Whoever is this far behind catches up faster by coming back.
    if (this.socket.bufferedAmount > BACKLOG) this.socket.terminate();
    else this.socket.send(bytes);
  }

  sendLive(bytes: Uint8Array): void {
    if (this.socket.bufferedAmount < LIVE_BACKLOG) this.send(bytes);
  }

  tell(message: ServerMessage): void {
    this.send(pack(message));
  }

  drop(): void {
    this.socket.close(CLOSE.again);
  }

  close(code: number): void {
    this.socket.close(code);
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
      case 'live.ink':
        if (!mayWrite(this.actor())) return;
        try {
          decodePoints(message.points);
        } catch (error) {
          if (error instanceof InkCodingError) return this.refuse('message-wrong-shape');
          throw error;
        }
        if (message.start || this.stroke?.id !== message.stroke)
          this.stroke = { id: message.stroke, page: message.start?.page ?? null };
        this.passStroke({ ...message, by: this.person });
        break;
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
      case 'trust':
        if (this.role !== 'tutor') return this.refuse('tutor-only');
        this.service.trust(this, message.who, message.trust);
        break;
      case 'step':
      case 'view':
      case 'gather':
        if (this.role !== 'tutor') return this.refuse('tutor-only');
        if (message.kind === 'step') this.service.leading.step(this, message.on);
        else if (message.kind === 'view')
          this.service.leading.view(this, message.view, message.rest);
        else this.service.leading.gather(this, message.view);
        break;
      case 'door':
        if (this.role !== 'tutor') return this.refuse('tutor-only');
        this.service.door(this, message.who, message.word);
        break;
    }
  }

  /** Tells of the stroke under way, if its page may be seen. */
  private passStroke(message: ServerMessage): void {
    const page = this.stroke?.page;
    this.service.passOn(this, message, page ? this.service.viewersOf(this.board, page) : undefined);
  }

  private refuse(code: ProblemCode): void {
    this.tell({ kind: 'problem', problem: problem(code) });
  }
}
