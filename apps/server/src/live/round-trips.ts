import type { WebSocket } from 'ws';

/** How often a window is asked, in ms. */
export const ASK_EVERY = 5000;
/** How much of what was measured last counts for what is told: one slow answer is no slow line. */
const SHARE = 0.4;
/** Of how many the shortest is how long the line itself takes. */
const OF = 6;

/**
 * How long a word takes to a window and back, in ms, measured by the server with the pings of WebSockets
 * (RFC 6455, 5.5.2), which browsers answer by themselves.
 */
export class RoundTrips {
  private asked = 0;
  private smoothed: number | null = null;
  /** The last few, in ms. */
  private readonly lately: number[] = [];
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
      this.lately.push(ms);
      if (this.lately.length > OF) this.lately.shift();
      // While a window loads, its first answer is late: the second is asked for at once.
      if (this.lately.length === 1) this.ask();
      this.smoothed = this.smoothed === null ? ms : this.smoothed + (ms - this.smoothed) * SHARE;
      told(Math.round(this.smoothed));
    });
    this.timer = setInterval(() => this.ask(), every).unref();
    socket.on('close', () => clearInterval(this.timer));
    this.ask();
  }

  /** How long the line takes at its best, in ms, however busy the window is; 0 before it is known. */
  get line(): number {
    return this.lately.length < 2 ? 0 : Math.min(...this.lately);
  }

  /** For how long an answer has been waited for by now, in ms; 0 while none is. */
  get waiting(): number {
    return this.asked === 0 ? 0 : performance.now() - this.asked;
  }

  private ask(): void {
    // What hasn't been answered yet is the measure of a line that has become slow.
    if (this.asked !== 0 || this.socket.readyState !== this.socket.OPEN) return;
    this.asked = performance.now();
    this.socket.ping();
  }
}
