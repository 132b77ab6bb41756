import type { Duplex } from 'node:stream';
import type { WebSocket } from 'ws';
import { RoundTrips } from './round-trips.js';

/** Bytes waiting to be sent above which live traffic is dropped, and everything is given up. */
const LIVE_BACKLOG = 256 * 1024;
const BACKLOG = 16 * 1024 * 1024;
/** How long a window may take to answer before live traffic is dropped, in ms. */
const LIVE_LATE = 2500;
/** From which round trip on a line is a slow one, in ms. */
const SLOW = 180;
/** For how long live traffic to a slow line is gathered, in ms. */
export const GATHER = 90;

/**
 * What goes out to one window. What lasts goes at once and always; what is live goes with the next frame on
 * a good line. On a slow one it is gathered for a moment: each packet costs 50 bytes of headers, sixty a
 * second more than all that is written, and nobody sees a tenth of a second on a line that takes two.
 */
export class Outlet {
  private readonly trips: RoundTrips;
  private gathered: Uint8Array[] = [];
  private timer: ReturnType<typeof setTimeout> | null = null;

  /**
   * @param line what the socket writes to
   * @param measured told how long a round trip takes, in ms, whenever it was measured
   */
  constructor(
    private readonly socket: WebSocket,
    private readonly line: Duplex,
    measured: (ms: number) => void,
  ) {
    this.trips = new RoundTrips(socket, measured);
    socket.on('close', () => this.timer && clearTimeout(this.timer));
  }

  send(bytes: Uint8Array): void {
    // What was said before is heard before.
    if (this.timer) this.flush(bytes);
    else this.write(bytes);
  }

  /** Sends what is of use now or never. */
  sendLive(bytes: Uint8Array): void {
    // What comes late is of no use: on a line that is behind, finished strokes come sooner without it.
    if (this.socket.bufferedAmount >= LIVE_BACKLOG || this.trips.waiting >= LIVE_LATE) return;
    if (!this.timer && this.trips.last < SLOW) return this.write(bytes);
    this.gathered.push(bytes);
    this.timer ??= setTimeout(() => this.flush(), GATHER);
  }

  /** Writes all that was gathered as one. */
  private flush(after?: Uint8Array): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const { gathered } = this;
    this.gathered = [];
    this.line.cork();
    for (const bytes of gathered) this.write(bytes);
    if (after) this.write(after);
    this.line.uncork();
  }

  private write(bytes: Uint8Array): void {
    if (this.socket.readyState !== this.socket.OPEN) return;
    // Whoever is this far behind catches up faster by coming back.
    if (this.socket.bufferedAmount > BACKLOG) this.socket.terminate();
    else this.socket.send(bytes);
  }
}
