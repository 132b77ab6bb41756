import { setTimeout } from 'node:timers/promises';
import { WorkerPool } from './worker-pool.js';
import type { PoolOptions } from './worker-pool.js';

/** How long a server that ends waits for what was begun, in ms. */
const CLOSE_LIMIT = 30_000;

/** Heavy work, on threads of its own with limits of time and memory. What the work is, the domains say that have it done. */
export class Workers {
  private readonly pools: WorkerPool[] = [];

  /** Threads for one kind of work. @param module whose functions do it */
  pool(module: URL, options: PoolOptions): WorkerPool {
    const pool = new WorkerPool(module, options);
    this.pools.push(pool);
    return pool;
  }

  /** When all that was begun is over. */
  async settled(): Promise<void> {
    await Promise.all(this.pools.map((pool) => pool.settled()));
  }

  /**
   * Lets what is under way finish: a thread that is cut off while it loads brings the process down, and a pool forgets
   * what waits for a thread that loads.
   */
  async close(): Promise<void> {
    await Promise.race([this.settled(), setTimeout(CLOSE_LIMIT, null, { ref: false })]);
    await Promise.all(this.pools.map((pool) => pool.close()));
  }
}
