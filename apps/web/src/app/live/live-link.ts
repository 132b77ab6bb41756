import { CLOSE } from '@cuaderno/core/features';
import { packMessage, readServerMessages } from '@cuaderno/core/wire';
import type { ClientMessage, ServerMessage } from '@cuaderno/core/features';
import type { Observable } from 'rxjs';
import { Subject } from 'rxjs';

/** First and longest wait before trying again, in ms. */
const FIRST_WAIT = 200;
const LONGEST_WAIT = 4000;
/** How often it is looked how the line is, in ms. */
const BEAT = 250;
/** How long nothing may be heard before the server is asked whether it is there, and how often it is asked, in ms. */
const ASK_AFTER = 750;
const ASK_EVERY = 1000;
/** How long without a word the line is quiet on a good line, what is added on a slow one, in round trips, in ms. */
const QUIET_AFTER = 1900;
const QUIET_SLOW = 1000;
/** How long without a word it counts as dead, in ms. */
const DEAD_AFTER = 10_000;

/** What the connection tells. */
export type LinkEvent =
  | { readonly kind: 'open' }
  | { readonly kind: 'away' }
  /** Nothing is heard for longer than it should take, or something is again. */
  | { readonly kind: 'quiet'; readonly is: boolean }
  /** It ended for good: `code` says why. */
  | { readonly kind: 'ended'; readonly code: number }
  | { readonly kind: 'message'; readonly message: ServerMessage };

/** How a connection is made. */
export type Dial = (url: URL) => WebSocket;

/** With these the server ends a connection for good. */
const FOR_GOOD: readonly number[] = [CLOSE.notIn, CLOSE.door, CLOSE.over, CLOSE.old];

/**
 * A line to the server that mends itself: it tries again after a break, at once when the machine
 * is back on the network, and notices a line that is dead without saying so.
 */
export class LiveLink {
  private readonly out = new Subject<LinkEvent>();
  readonly events: Observable<LinkEvent> = this.out.asObservable();
  private socket: WebSocket | null = null;
  private wait = FIRST_WAIT;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private readonly pulse: ReturnType<typeof setInterval>;
  private heardAt = 0;
  private pings = 0;
  private askedAt = 0;
  /** When those were asked that haven't been answered. */
  private readonly asked = new Map<number, number>();
  /** How long an answer took, lately, in ms. */
  private trip = 0;
  private quiet = false;
  private beatAt = 0;
  private done = false;
  /** Whether the server knows nobody here just now: there is no use in dialling before somebody has signed in. */
  private resting = false;

  /** @param path of the WebSocket on this origin */
  constructor(
    public path: string,
    private readonly dial: Dial = (url) => new WebSocket(url),
  ) {
    this.pulse = setInterval(() => this.beat(), BEAT);
    addEventListener('online', this.tryNow);
    addEventListener('offline', this.offline);
    document.addEventListener('visibilitychange', this.tryNow);
    this.connect();
  }

  get isOpen(): boolean {
    return this.socket?.readyState === WebSocket.OPEN;
  }

  /** Whether it could be handed to the network. */
  send(message: ClientMessage): boolean {
    if (!this.isOpen) return false;
    this.socket!.send(packMessage(message) as Uint8Array<ArrayBuffer>);
    return true;
  }

  /** Hangs up and dials again. */
  reconnect(): void {
    this.socket?.close();
    this.lost(this.socket, 0);
  }

  /** Somebody is known again: dials anew. */
  resume(): void {
    if (this.done || !this.resting) return;
    this.resting = false;
    this.connect();
  }

  close(): void {
    this.done = true;
    clearInterval(this.pulse);
    clearTimeout(this.retry);
    removeEventListener('online', this.tryNow);
    removeEventListener('offline', this.offline);
    document.removeEventListener('visibilitychange', this.tryNow);
    this.socket?.close();
    this.out.complete();
  }

  private connect(): void {
    clearTimeout(this.retry);
    const url = new URL(this.path, location.href);
    url.protocol = url.protocol.replace('http', 'ws');
    const socket = this.dial(url);
    socket.binaryType = 'arraybuffer';
    this.socket = socket;
    this.heardAt = performance.now();
    socket.onopen = () => {
      this.out.next({ kind: 'open' });
    };
    socket.onmessage = (event: MessageEvent<ArrayBuffer>) => {
      this.heardAt = performance.now();
      this.wait = FIRST_WAIT;
      this.tellQuiet(false);
      for (const message of readServerMessages(new Uint8Array(event.data)))
        if (message.kind !== 'pong') this.out.next({ kind: 'message', message });
        else this.answered(message.n);
    };
    socket.onclose = (event) => this.lost(socket, event.code);
  }

  private lost(socket: WebSocket | null, code: number): void {
    if (this.done || socket !== this.socket) return;
    this.socket = null;
    this.asked.clear();
    this.quiet = false;
    if (FOR_GOOD.includes(code)) {
      this.resting = code === CLOSE.notIn;
      this.out.next({ kind: 'ended', code });
      if (!this.resting) this.close();
      return;
    }
    this.out.next({ kind: 'away' });
    // Some of each wait is chance, so that a class doesn't come back all in the same moment.
    this.retry = setTimeout(() => this.connect(), this.wait * (0.75 + Math.random() / 2));
    this.wait = Math.min(LONGEST_WAIT, this.wait * 2);
  }

  private readonly tryNow = (): void => {
    if (this.done || this.resting || document.visibilityState === 'hidden') return;
    if (!this.socket) this.connect();
    else this.ask(performance.now());
  };

  /** The machine knows by itself that it has no network. */
  private readonly offline = (): void => {
    if (this.isOpen) this.tellQuiet(true);
  };

  private beat(): void {
    const now = performance.now();
    // Where this machine itself was busy, or asleep, what came meanwhile is still to be read.
    const wasBusy = now - this.beatAt > 4 * BEAT;
    this.beatAt = now;
    if (!this.socket) return;
    const silent = now - this.heardAt;
    // Windows that nobody sees are woken once a minute: this is found out there, too.
    if (silent > DEAD_AFTER) return this.reconnect();
    if (silent > ASK_AFTER && now - this.askedAt >= ASK_EVERY) this.ask(now);
    if (!wasBusy && silent > Math.max(QUIET_AFTER, QUIET_SLOW + 2 * this.trip) && this.isOpen)
      this.tellQuiet(true);
  }

  private ask(now: number): void {
    if (!this.send({ kind: 'ping', n: this.pings })) return;
    this.askedAt = now;
    this.asked.set(this.pings++, now);
  }

  private answered(n: number): void {
    // At a door every answer has the same number: then it is to all that was asked.
    const [last, at] = this.asked.has(n)
      ? [n, this.asked.get(n)]
      : [Infinity, this.asked.values().next().value];
    if (at !== undefined) this.trip = (this.trip + performance.now() - at) / 2;
    for (const earlier of this.asked.keys()) if (earlier <= last) this.asked.delete(earlier);
  }

  private tellQuiet(is: boolean): void {
    if (is === this.quiet) return;
    this.quiet = is;
    this.out.next({ kind: 'quiet', is });
  }
}
