import { pack, CLOSE } from '@cuaderno/core';
import type { ServerMessage } from '@cuaderno/core';
import type { WebSocket } from 'ws';
import type { LiveLesson, Participant } from '../lessons/live-lesson.js';
import { Allowance } from './allowance.js';

/** Bytes of a message from the door at most: nothing that is said there is long. */
const MAX_BYTES = 200;

/** Signs of life: so many a second, and so many at once. */
const RATE = 2;
const AT_ONCE = 20;

/**
 * A window of someone at the door. It is told where they stand and nothing else: no board, no names, no
 * word that is said inside.
 */
export class DoorConnection {
  constructor(
    private readonly socket: WebSocket,
    readonly lesson: LiveLesson,
    readonly person: Participant,
    left: (connection: DoorConnection) => void,
  ) {
    const allowance = new Allowance(RATE, AT_ONCE);
    socket.on('message', (data: Buffer) => {
      // A sign of life is answered; there is nothing else to say.
      if (data.length <= MAX_BYTES && allowance.take()) return this.send({ kind: 'pong', n: 0 });
      socket.removeAllListeners('message');
      socket.close(CLOSE.flood);
    });
    socket.on('close', () => left(this));
    socket.on('error', () => undefined);
    this.tell();
  }

  /** Says where they stand. */
  tell(): void {
    this.send({ kind: 'door.state', state: this.person.door });
  }

  over(): void {
    this.socket.close(CLOSE.over);
  }

  private send(message: ServerMessage): void {
    if (this.socket.readyState === this.socket.OPEN) this.socket.send(pack(message));
  }
}
