/** A token bucket: filled with `rate` a second, it never holds more than `burst`. */
abstract class TokenBucket {
  private left: number;
  private at: number;

  constructor(
    protected readonly rate: number,
    private readonly burst: number,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.left = burst;
    this.at = now();
  }

  /** Returns what is in it by now, after `cost` is taken out; below 0 where it is overdrawn. */
  protected draw(cost: number): number {
    const now = this.now();
    this.left = Math.min(this.burst, this.left + ((now - this.at) / 1000) * this.rate) - cost;
    this.at = now;
    return this.left;
  }
}

/**
 * How many messages a window may send: `rate` a second, and `burst` at once. Honest pens stay far
 * below; a flood is turned away before it is read.
 */
export class Allowance extends TokenBucket {
  take(): boolean {
    if (this.draw(0) < 1) return false;
    this.draw(1);
    return true;
  }
}

/**
 * What one person may cost: so much a second for long, and so much at once. Unlike an `Allowance`, it can be
 * overdrawn: what was taken was taken, and the next has to wait.
 */
export class Budget extends TokenBucket {
  /** Returns for how long, in ms, nothing more is to be taken: 0 while there is something left. */
  spend(cost: number): number {
    const left = this.draw(cost);
    return left >= 0 ? 0 : (-left / this.rate) * 1000;
  }
}
