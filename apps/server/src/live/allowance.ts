/**
 * How many messages a window may send: `rate` a second, and `burst` at once. Honest pens stay far
 * below; a flood is turned away before it is read.
 */
export class Allowance {
  private left: number;
  private at: number;

  constructor(
    private readonly rate: number,
    private readonly burst: number,
    private readonly now: () => number = () => performance.now(),
  ) {
    this.left = burst;
    this.at = now();
  }

  take(): boolean {
    const now = this.now();
    this.left = Math.min(this.burst, this.left + ((now - this.at) / 1000) * this.rate);
    this.at = now;
    if (this.left < 1) return false;
    this.left--;
    return true;
  }
}
