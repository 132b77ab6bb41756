import { Allowance } from './allowance.js';
import type { LiveConnection } from './connection.js';

/** How often each window may do something: so many times a second on the whole, and so many at once. */
export class WindowAllowances {
  private readonly of = new WeakMap<LiveConnection, Allowance>();

  constructor(
    private readonly rate: number,
    private readonly atOnce: number,
  ) {}

  take(window: LiveConnection): boolean {
    const allowance = this.of.get(window) ?? new Allowance(this.rate, this.atOnce);
    this.of.set(window, allowance);
    return allowance.take();
  }
}
