import { Workers } from '../workers/workers.js';
import type { PoolOptions, WorkerPool } from '../workers/worker-pool.js';

/** How long an idle thread stays, in ms: until the next spec or story has a server that needs it. */
const IDLE = 60_000;

/**
 * Threads that one server after the other uses: to load what reads PDFs anew for each takes longer than most specs.
 * They end by themselves when nothing asks for them, as a server's own do.
 */
export class SharedWorkers extends Workers {
  private readonly known = new Map<string, WorkerPool>();

  override pool(module: URL, options: PoolOptions): WorkerPool {
    const key = JSON.stringify([module.href, options]);
    const pool = this.known.get(key) ?? super.pool(module, { ...options, idle: IDLE });
    this.known.set(key, pool);
    return pool;
  }
}
