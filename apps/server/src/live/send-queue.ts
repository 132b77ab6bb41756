import type { Duplex } from 'node:stream';
import type { WebSocket } from 'ws';
import { framed, framedTogether } from './frame.js';
import { RoundTrips } from './round-trips.js';

/** Bytes waiting to be sent above which live traffic is dropped, and everything is given up. */
const LIVE_BACKLOG = 256 * 1024;
const BACKLOG = 16 * 1024 * 1024;
/** How long a window may take to answer before live traffic is dropped, in ms. */
const LIVE_LATE = 2500;
/** For how long live traffic is gathered at most, in ms. */
export const GATHER = 90;
/** How soon after live traffic more of it may follow on the best of lines, in ms: half a frame. */
export const APART = 8;

/**
 * What goes out to one window. What lasts goes at once and always; what is live goes at once on a good line
 * where one person writes. What more write within half a frame goes together: a window is busy with each
 * message that comes, and draws once a frame. The slower a line, the longer what is live is gathered, for as
 * long as a word is on its way: each packet costs 50 bytes of headers, sixty a second more than all that is
 * written, and who waits for the line doesn't see that more waits with it.
 */
export class SendQueue {
  private readonly trips: RoundTrips;
  private gathered: Uint8Array[] = [];
  private liveAt = -Infinity;
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
    else this.write(framed(bytes));
  }

  /** Sends what is of use now or never. */
  sendLive(bytes: Uint8Array): void {
    // What comes late is of no use: on a line that is behind, finished strokes come sooner without it.
    if (this.socket.bufferedAmount >= LIVE_BACKLOG || this.trips.waiting >= LIVE_LATE) return;
    const now = performance.now();
    const since = now - this.liveAt;
    if (!this.timer && since >= this.apart) {
      this.liveAt = now;
      return this.write(framed(bytes));
    }
    this.gathered.push(bytes);
    this.timer ??= setTimeout(() => this.flush(), this.apart - since);
  }

  /** How soon after live traffic more of it may follow, in ms. */
  private get apart(): number {
    return Math.max(APART, Math.min(GATHER, this.trips.line / 2));
  }

  /** Writes all that was gathered as one. */
  private flush(after?: Uint8Array): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const { gathered } = this;
    this.gathered = [];
    this.liveAt = performance.now();
    this.line.cork();
    this.write(framedTogether(gathered));
    if (after) this.write(framed(after));
    this.line.uncork();
  }

  /**
   * Past the socket's own `send`, which hands head and body on one by one, to each window anew. Nothing else is
   * under way in it: nothing is compressed, and no message is sent in parts.
   */
  private write(frame: Buffer): void {
    if (this.socket.readyState !== this.socket.OPEN) return;
    // Anyone who is this far behind catches up faster by coming back.
    if (this.socket.bufferedAmount > BACKLOG) this.socket.terminate();
    else this.line.write(frame);
  }
}
