import { ProblemError } from '../problems/index.js';

/** Longest anyone has to wait, in seconds. */
const MAX_WAIT = 300;
/** Failures are forgotten after this long, in ms. */
const MEMORY = 15 * 60_000;

/**
 * Slows down whoever guesses. After `free` failures each further try has to wait, twice as long
 * each time. Kept in memory: a restart forgives, and guessing across restarts is no faster.
 */
export class Throttle {
  private readonly failures = new Map<string, { count: number; last: number }>();

  constructor(
    private readonly free: number,
    private readonly now: () => number = Date.now,
  ) {}

  /** Throws `slow-down`, with the seconds to wait, while `key` has to wait. */
  check(key: string): void {
    const known = this.failures.get(key);
    if (!known || known.count < this.free) return;
    const wait = Math.min(MAX_WAIT, 2 ** (known.count - this.free)) * 1000;
    const left = known.last + wait - this.now();
    if (left > 0) {
      const seconds = Math.ceil(left / 1000);
      throw new ProblemError('slow-down', {
        detail: `Wait ${seconds} ${seconds === 1 ? 'second' : 'seconds'}, then try again.`,
        retryAfter: seconds,
      });
    }
  }

  failed(key: string): void {
    const now = this.now();
    if (this.failures.size > 10_000)
      for (const [k, { last }] of this.failures) if (now - last > MEMORY) this.failures.delete(k);
    const known = this.failures.get(key);
    const count = known && now - known.last < MEMORY ? known.count + 1 : 1;
    this.failures.set(key, { count, last: now });
  }

  succeeded(key: string): void {
    this.failures.delete(key);
  }
}
