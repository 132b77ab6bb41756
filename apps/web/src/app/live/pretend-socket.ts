import { packMessage, readClientMessage } from '@cuaderno/core/wire';
import type { ClientMessage, ServerMessage } from '@cuaderno/core/features';

/** The server's end of a line, for tests: opens it, speaks, listens, and breaks it off. */
export class PretendSocket {
  binaryType = 'blob';
  readyState: number = WebSocket.CONNECTING;
  readonly heard: ClientMessage[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: ArrayBuffer }) => void) | null = null;
  onclose: ((event: { code: number }) => void) | null = null;

  constructor(readonly url: URL) {}

  send(data: Uint8Array): void {
    this.heard.push(readClientMessage(data));
  }

  close(): void {
    this.readyState = WebSocket.CLOSING;
  }

  open(): void {
    this.readyState = WebSocket.OPEN;
    this.onopen?.();
  }

  say(message: ServerMessage): void {
    this.onmessage?.({ data: packMessage(message).slice().buffer });
  }

  /** @param code 1006 is a line that broke */
  end(code = 1006): void {
    this.readyState = WebSocket.CLOSED;
    this.onclose?.({ code });
  }

  /** What was heard of this kind, in order. */
  of<K extends ClientMessage['kind']>(kind: K): Extract<ClientMessage, { kind: K }>[] {
    return this.heard.filter((m): m is Extract<ClientMessage, { kind: K }> => m.kind === kind);
  }
}

/** Keeps every line that was dialled; the last is the one in use. */
export class PretendServer {
  readonly lines: PretendSocket[] = [];
  readonly dial = (url: URL): WebSocket => {
    const socket = new PretendSocket(url);
    this.lines.push(socket);
    return socket as unknown as WebSocket;
  };

  get line(): PretendSocket {
    return this.lines.at(-1)!;
  }
}
