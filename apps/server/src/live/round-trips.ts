import type { WebSocket } from 'ws';

/** How often a window is asked, in ms. */
export const ASK_EVERY = 5000;
/** How much of what was measured last counts for what is told: one slow answer is no slow line. */
const SHARE = 0.4;

/**
 * How long a word takes to a window and back, in ms, measured by the server with the pings of WebSockets
 * (RFC 6455, 5.5.2), which browsers answer by themselves.
 */
export class RoundTrips {
  private asked = 0;
  private last: number | null = null;
  private readonly timer: ReturnType<typeof setInterval>;

  /** @param told what it is now, whenever it was measured */
  constructor(
    private readonly socket: WebSocket,
    told: (ms: number) => void,
    every = ASK_EVERY,
  ) {
    socket.on('pong', () => {
      if (this.asked === 0) return;
      const ms = performance.now() - this.asked;
      this.asked = 0;
      this.last = this.last === null ? ms : this.last + (ms - this.last) * SHARE;
      told(Math.round(this.last));
    });
    this.timer = setInterval(() => this.ask(), every).unref();
    socket.on('close', () => clearInterval(this.timer));
    this.ask();
  }

  private ask(): void {
    // What hasn't been answered yet is the measure of a line that has become slow.
    if (this.asked !== 0 || this.socket.readyState !== this.socket.OPEN) return;
    this.asked = performance.now();
    this.socket.ping();
  }
}
