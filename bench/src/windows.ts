import { packMessage, PROTOCOL, readServerMessages } from '@cuaderno/core';
import type { BoardOutline, ClientMessage, Id, Operation, ServerMessage } from '@cuaderno/core';
import WebSocket from 'ws';

/** A window without a screen: what it is told, and what it says. */
export class BareWindow {
  board = '';
  private readonly ears = new Set<(message: ServerMessage) => void>();

  private constructor(readonly socket: WebSocket) {
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer) => {
      // Nobody listens: reading it would only take time from what is measured on the same machine.
      if (this.ears.size === 0) return;
      for (const message of readServerMessages(data)) for (const ear of this.ears) ear(message);
    });
    socket.on('error', () => undefined);
  }

  /** Connects and waits to be welcome. */
  static async open(url: string, cookie: string): Promise<[BareWindow, Welcome]> {
    const socket = new WebSocket(url, { headers: { cookie }, perMessageDeflate: false });
    const window = new BareWindow(socket);
    await new Promise((done, fail) => socket.once('open', done).once('error', fail));
    const [welcome, opened] = [window.hears('welcome'), window.hears('board.opened')];
    const [, wanted = null] = /\/live\/boards\/(.+)$/.exec(url) ?? [];
    window.say({ kind: 'hello', protocol: PROTOCOL, boards: [{ board: wanted, since: -1 }] });
    const { board, outline } = await opened;
    window.board = board;
    return [window, { ...(await welcome), board: outline! }];
  }

  /** Which board it is about needn't be said: it is the one that it opened. */
  say(message: Unplaced): void {
    const board = ON_BOARD.has(message.kind) ? { board: this.board } : {};
    this.socket.send(packMessage({ ...board, ...message } as ClientMessage));
  }

  listen(ear: (message: ServerMessage) => void): () => void {
    this.ears.add(ear);
    return () => this.ears.delete(ear);
  }

  /** The next message of a kind that fits. */
  hears<K extends ServerMessage['kind']>(
    kind: K,
    fits: (message: Extract<ServerMessage, { kind: K }>) => boolean = () => true,
  ): Promise<Extract<ServerMessage, { kind: K }>> {
    return new Promise((done) => {
      const stop = this.listen((message) => {
        if (message.kind !== kind || !fits(message as Extract<ServerMessage, { kind: K }>)) return;
        stop();
        done(message as Extract<ServerMessage, { kind: K }>);
      });
    });
  }

  /** Does these on the board that it opened, and waits until they are kept. */
  async keeps(ops: Operation[]): Promise<void> {
    const last = ops.at(-1)!.id;
    const confirmed = this.hears('confirmed', ({ ids }) => ids.includes(last));
    this.say({ kind: 'ops', ops });
    await confirmed;
  }

  close(): void {
    this.socket.close();
  }
}

export type Welcome = Extract<ServerMessage, { kind: 'welcome' }> & {
  /** The board that was opened with it. */
  readonly board: BoardOutline;
};

type Without<M> = M extends { readonly board: Id } ? Omit<M, 'board'> & { board?: Id } : M;
export type Unplaced = Without<ClientMessage>;

const ON_BOARD: ReadonlySet<string> = new Set(['ops', 'pages', 'live.ink', 'page.viewed']);
