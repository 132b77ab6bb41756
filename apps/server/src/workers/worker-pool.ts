import { Piscina } from 'piscina';
import type { ResourceLimits, Transferable } from 'node:worker_threads';

/** Memory of a thread that reads what is sent, in MB. */
export const ROOMY = { maxOldGenerationSizeMb: 1024 } as const;

/**
 * Memory of a thread that makes much that lives for a moment, in MB: with room for that, it isn't stopped again and
 * again to clear it away.
 */
export const MAKING = { maxOldGenerationSizeMb: 1024, maxYoungGenerationSizeMb: 96 } as const;

export interface PoolOptions {
  /** The function of the module that does the work, where a job names no other. */
  readonly name: string;
  readonly memory: ResourceLimits;
  /** Threads at most; one where it isn't said. */
  readonly threads?: number;
  /** How long an idle thread stays, in ms. */
  readonly idle?: number;
}

export interface JobOptions {
  readonly name?: string;
  readonly signal: AbortSignal;
  readonly transferList?: readonly Transferable[];
}

/** Threads for one kind of work, there while they are needed. */
export class WorkerPool {
  private readonly pool: Piscina;
  /** What was begun, whether its thread is there or still loads. */
  private readonly underWay = new Set<Promise<unknown>>();

  /** @param module whose functions do the work */
  constructor(module: URL, { name, memory, threads = 1, idle = 30_000 }: PoolOptions) {
    this.pool = new Piscina({
      filename: module.href,
      name,
      minThreads: 0,
      maxThreads: threads,
      idleTimeout: idle,
      resourceLimits: memory,
    });
  }

  /** How many jobs wait for a thread. */
  get waiting(): number {
    return this.pool.queueSize;
  }

  /** Does a job. Rejects with what the function threw, or when `signal` ends it; see `isOverLimits`. */
  run<Result>(task: unknown, options: JobOptions): Promise<Result> {
    const running = this.pool.run(
      task,
      options as Parameters<Piscina['run']>[1],
    ) as Promise<Result>;
    const over: Promise<unknown> = running.then(
      () => this.underWay.delete(over),
      () => this.underWay.delete(over),
    );
    this.underWay.add(over);
    return running;
  }

  /** When all that was begun is over. */
  async settled(): Promise<void> {
    await Promise.allSettled(this.underWay);
  }

  close(): Promise<void> {
    return this.pool.close();
  }
}

/** Whether a job was ended because its time was up, or because it took more memory than it may. */
export function isOverLimits(error: unknown): boolean {
  const { name, code } = error as { name?: unknown; code?: unknown };
  return name === 'AbortError' || name === 'TimeoutError' || code === 'ERR_WORKER_OUT_OF_MEMORY';
}
