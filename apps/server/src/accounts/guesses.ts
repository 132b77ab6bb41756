import { RateLimiterMemory } from 'rate-limiter-flexible';
import type { RateLimiterRes } from 'rate-limiter-flexible';
import { ProblemError } from '../problems/index.js';

/** For how long a wrong guess counts, in seconds. */
const HOUR = 3600;

/**
 * Slows down anyone who guesses: so many wrong guesses an hour, and none more. Each is counted before it is looked at,
 * so that guesses made at once count as well; one that was right is given back, and clears none of the wrong ones.
 * Kept in memory: a restart forgives, and guessing across restarts is no faster.
 */
export class Guesses {
  private readonly limiter: RateLimiterMemory;

  /** @param free wrong guesses an hour, of whatever a key stands for */
  constructor(free: number) {
    this.limiter = new RateLimiterMemory({ points: free, duration: HOUR });
  }

  /** Throws `slow-down`, with the seconds to wait, where too many were wrong. */
  async begin(key: string): Promise<void> {
    try {
      await this.limiter.consume(key);
    } catch (refused) {
      if (refused instanceof Error) throw refused;
      // Where the clock was set back, what is left of the hour seems longer than an hour.
      const ms = Math.min(HOUR * 1000, (refused as RateLimiterRes).msBeforeNext);
      const seconds = Math.max(1, Math.ceil(ms / 1000));
      throw new ProblemError('slow-down', {
        detail: `Wait ${inWords(seconds)}, then try again.`,
        retryAfter: seconds,
      });
    }
  }

  /** That guess was right. */
  async right(key: string): Promise<void> {
    await this.limiter.reward(key);
  }
}

function inWords(seconds: number): string {
  const [count, unit] = seconds < 90 ? [seconds, 'second'] : [Math.ceil(seconds / 60), 'minute'];
  return `${count} ${unit}${count === 1 ? '' : 's'}`;
}
